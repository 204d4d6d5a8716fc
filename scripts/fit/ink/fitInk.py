"""Fits the ink net: a picture of lettering → coverage of the letters' faces. Debian's python3-torch and python3-opencv.

/usr/bin/python3 scripts/fit/ink/fitInk.py <words of drawWords.ts> <out.onnx> [thousands of steps] [net to go on from: .pt or .onnx]

Families are kept apart: every tenth is judged on, none of the demo library is in. Prints what is wrong of the ink of the families kept
apart, as a share of all ink, every thousand steps.
"""
import os
import sys
import time

os.environ.setdefault("OMP_NUM_THREADS", "1")
import cv2
import numpy as np
import torch
import torch.nn as nn
import torch.nn.functional as F

import spoil

cv2.setNumThreads(1)
WIDTHS = (12, 24, 40, 64, 96)
BATCH = 16


def block(a, b, stride=1):
    return nn.Sequential(nn.Conv2d(a, b, 3, stride, 1, bias=False), nn.BatchNorm2d(b), nn.ReLU(inplace=True))


class Residual(nn.Module):
    """Adds to what it is given; adds nothing until it is fitted."""

    def __init__(self, a):
        super().__init__()
        self.first = block(a, a)
        self.second = nn.Conv2d(a, a, 3, 1, 1, bias=False)
        self.norm = nn.BatchNorm2d(a)
        nn.init.zeros_(self.norm.weight)

    def forward(self, x):
        return F.relu(x + self.norm(self.second(self.first(x))))


class InkNet(nn.Module):
    """[n, 3, h, w] of 0–1, h and w multiples of 32 → [n, 1, h, w], log odds of ink."""

    def __init__(self):
        super().__init__()
        a, b, c, d, e = WIDTHS
        self.down1 = nn.Sequential(block(3, a, 2), block(a, a))
        self.down2 = nn.Sequential(block(a, b, 2), block(b, b))
        self.down3 = nn.Sequential(block(b, c, 2), block(c, c), block(c, c), Residual(c), Residual(c))
        self.down4 = nn.Sequential(block(c, d, 2), block(d, d), block(d, d), Residual(d), Residual(d))
        self.down5 = nn.Sequential(block(d, e, 2), block(e, e), block(e, e), Residual(e), Residual(e))
        self.up4 = block(e + d, d)
        self.up3 = nn.Sequential(block(d + c, c), block(c, c), Residual(c))
        self.up2 = block(c + b, b)
        self.up1 = nn.Sequential(block(b + a, 16), block(16, 16))
        self.last = nn.Conv2d(16, 4, 1)

    def forward(self, x):
        x = x - 0.5
        s1 = self.down1(x)
        s2 = self.down2(s1)
        s3 = self.down3(s2)
        s4 = self.down4(s3)
        s5 = self.down5(s4)

        def larger(t):
            return F.interpolate(t, scale_factor=2.0, mode="nearest")

        t = self.up4(torch.cat([larger(s5), s4], 1))
        t = self.up3(torch.cat([larger(t), s3], 1))
        t = self.up2(torch.cat([larger(t), s2], 1))
        t = self.up1(torch.cat([larger(t), s1], 1))
        return F.pixel_shuffle(self.last(t), 2)


class Pictures(torch.utils.data.IterableDataset):
    def __init__(self, path, is_apart, seed):
        self.path, self.is_apart, self.seed = path, is_apart, seed

    def __iter__(self):
        import zlib

        info = torch.utils.data.get_worker_info()
        rng = np.random.default_rng(self.seed + 977 * (info.id if info else 0))
        words = spoil.Words(self.path)
        words.list = [w for w in words.list if (zlib.crc32(w["family"].encode()) % 10 == 0) == self.is_apart]
        while True:
            try:
                picture, cover = spoil.sample(rng, words)
            except cv2.error:
                continue
            yield torch.from_numpy(picture.transpose(2, 0, 1).copy()), torch.from_numpy(cover[None])


def loss_of(logits, cover):
    y = cover.float() / 255
    p = torch.sigmoid(logits)
    bce = F.binary_cross_entropy_with_logits(logits, y)
    dice = 1 - (2 * (p * y).sum((1, 2, 3)) + 20) / ((p * p).sum((1, 2, 3)) + (y * y).sum((1, 2, 3)) + 20)
    return bce + 0.5 * dice.mean()


def judge(net, batches):
    net.eval()
    wrong = ink = 0.0
    with torch.no_grad():
        for x, y in batches:
            p = torch.sigmoid(net(x.float() / 255))
            t = y.float() / 255
            wrong += (p - t).abs().sum().item()
            ink += t.sum().item()
    net.train()
    return wrong / ink


def load_onnx(net, path, pictures):
    """Takes over an exported net, whose norms are folded into its convolutions: each norm is set so that on these pictures it gives what
    the folded convolution gave. Residuals that the exported net lacks are left as they begin."""
    import onnx.numpy_helper

    # Without the mark of weights that are kept with 16 bits.
    kept = {i.name.removesuffix(".half"): torch.from_numpy(onnx.numpy_helper.to_array(i).astype(np.float32)) for i in onnx.load(path).graph.initializer}
    folded = [(t, bias) for (n, t), bias in zip(kept.items(), list(kept.values())[1:]) if t.ndim == 4 and not n.startswith("last")]
    is_grown = len(folded) < sum(isinstance(m, nn.BatchNorm2d) for m in net.modules())
    new = {m for r in net.modules() if isinstance(r, Residual) for m in r.modules()} if is_grown else set()
    convs = [m for m in net.modules() if isinstance(m, nn.Conv2d) and m is not net.last and m not in new]
    norms = [m for m in net.modules() if isinstance(m, nn.BatchNorm2d) and m not in new]
    net.last.load_state_dict({"weight": kept["last.weight"], "bias": kept["last.bias"]})

    def settle(bias):
        def hook(norm, given):
            mean, var = given[0].mean((0, 2, 3)), given[0].var((0, 2, 3))
            norm.running_mean.copy_(mean)
            norm.running_var.copy_(var)
            norm.weight.copy_((var + norm.eps).sqrt())
            norm.bias.copy_(bias + mean)

        return hook

    with torch.no_grad():
        for conv, (weight, _) in zip(convs, folded, strict=True):
            conv.weight.copy_(weight)
        hooks = [norm.register_forward_pre_hook(settle(bias)) for norm, (_, bias) in zip(norms, folded, strict=True)]
        net.eval()
        net(pictures.float() / 255)
        net.train()
    for h in hooks:
        h.remove()


def halve(path):
    """Weights are kept with 16 bits, and made 32 again when the net is loaded: the file is half as large."""
    import onnx.numpy_helper

    model = onnx.load(path)
    graph = model.graph
    for i in list(graph.initializer):
        weights = onnx.numpy_helper.to_array(i)
        if weights.dtype != np.float32:
            continue
        graph.initializer.remove(i)
        graph.initializer.append(onnx.numpy_helper.from_array(weights.astype(np.float16), f"{i.name}.half"))
        graph.node.insert(0, onnx.helper.make_node("Cast", [f"{i.name}.half"], [i.name], to=onnx.TensorProto.FLOAT))
    onnx.save(model, path)


def export(net, path):
    net.eval()
    torch.onnx.export(
        net,
        torch.zeros(1, 3, 96, 320),
        path,
        input_names=["picture"],
        output_names=["ink"],
        dynamic_axes={"picture": {2: "h", 3: "w"}, "ink": {2: "h", 3: "w"}},
        opset_version=13,
    )
    net.train()
    halve(path)


def main():
    words, out = sys.argv[1:3]
    steps = 1000 * int(sys.argv[3]) if len(sys.argv) > 3 else 20000
    torch.manual_seed(1)
    torch.set_num_threads(1)
    net = InkNet().to(memory_format=torch.channels_last)
    print(sum(p.numel() for p in net.parameters()), "weights", flush=True)
    apart = iter(torch.utils.data.DataLoader(Pictures(words, True, 7), BATCH))
    judged = [next(apart) for _ in range(20)]
    batches = torch.utils.data.DataLoader(Pictures(words, False, int(time.time())), BATCH, num_workers=1, prefetch_factor=4)
    if len(sys.argv) > 4 and sys.argv[4].endswith(".onnx"):
        load_onnx(net, sys.argv[4], torch.cat([x for x, _ in judged[:8]]))
    elif len(sys.argv) > 4:
        net.load_state_dict(torch.load(sys.argv[4]))
    print(f"begins with wrong of families apart {judge(net, judged):.3f}", flush=True)
    peak = 1.0e-3
    best = torch.optim.AdamW(net.parameters(), lr=peak, weight_decay=1e-3)
    begun = time.time()
    mean = 0.0
    for step, (x, y) in enumerate(batches):
        done = step / steps
        if done >= 1:
            break
        rate = peak * min(1, (step + 1) / 200) * (0.02 + 0.98 * 0.5 * (1 + np.cos(np.pi * done)))
        for g in best.param_groups:
            g["lr"] = rate
        loss = loss_of(net((x.float() / 255).contiguous(memory_format=torch.channels_last)), y)
        best.zero_grad()
        loss.backward()
        best.step()
        mean = loss.item() if step == 0 else 0.99 * mean + 0.01 * loss.item()
        if step % 250 == 249:
            line = f"{step + 1} steps, {(time.time() - begun) / 60:.1f} min, loss {mean:.4f}"
            if step % 1000 == 999:
                line += f", wrong of families apart {judge(net, judged):.3f}"
                torch.save(net.state_dict(), f"{out}.pt")
                export(net, out)
            print(line, flush=True)
    torch.save(net.state_dict(), f"{out}.pt")
    print(f"wrong of families apart {judge(net, judged):.3f}")
    export(net, out)


main()
