"""Spoils drawn words as photographs do: pictures to fit the ink net to, made anew each time. Used by fitInk.py.

A word's coverage is laid into a scene under a smooth warp, made of paint, light, relief, glow or print, on a ground of its own, lit
unevenly and taken by a poor camera. What is asked for is the coverage of the letters' faces, whatever they are made of.
"""
import cv2
import numpy as np

HEIGHT, WIDTH = 64, 256


class Words:
    """Coverage of drawn words; see drawWords.ts."""

    def __init__(self, path: str):
        import json

        self.list = json.load(open(f"{path}.json"))
        self.bytes = np.memmap(f"{path}.bin", dtype=np.uint8, mode="r")

    def pick(self, rng) -> np.ndarray:
        w = self.list[rng.integers(len(self.list))]
        size = w["widthPx"] * w["heightPx"]
        return np.array(self.bytes[w["at"] : w["at"] + size]).reshape(w["heightPx"], w["widthPx"]).astype(np.float32) / 255


def smooth_field(rng, h, w, grain):
    """Values of mean 0 that change over about `grain` pixels; [h, w], about -1 to 1."""
    small = rng.standard_normal((max(2, int(h / grain) + 2), max(2, int(w / grain) + 2))).astype(np.float32)
    return cv2.resize(small, (w, h), interpolation=cv2.INTER_CUBIC)


def fractal(rng, h, w):
    out = np.zeros((h, w), np.float32)
    weight = 1.0
    for grain in rng.permutation([2, 4, 8, 16, 40, 90])[: rng.integers(2, 6)]:
        out += weight * smooth_field(rng, h, w, grain)
        weight *= rng.uniform(0.5, 1.1)
    return out / (np.abs(out).max() + 1e-6)


def colour(rng):
    return rng.uniform(0, 1, 3).astype(np.float32) ** rng.choice([0.6, 1.0, 1.6])


def graded(rng, h, w, a, b):
    angle = rng.uniform(0, 2 * np.pi)
    y, x = np.mgrid[0:h, 0:w].astype(np.float32)
    t = x * np.cos(angle) + y * np.sin(angle)
    t = (t - t.min()) / (t.max() - t.min() + 1e-6)
    return a + (b - a) * t[..., None]


def ground(rng, h, w):
    """What things stand on; [h, w, 3]."""
    kind = rng.choice(["flat", "graded", "noise", "shapes", "bricks", "stripes", "grain"], p=[0.22, 0.16, 0.2, 0.2, 0.08, 0.06, 0.08])
    a, b = colour(rng), colour(rng)
    if kind == "flat":
        return np.ones((h, w, 3), np.float32) * a
    if kind == "graded":
        return graded(rng, h, w, a, b)
    if kind == "noise":
        t = (fractal(rng, h, w)[..., None] + 1) / 2
        mixed = a * (1 - t) + b * t
        return mixed * rng.uniform(0.3, 1) + a * 0.2
    if kind == "grain":
        return np.clip(a + rng.uniform(0.03, 0.16) * rng.standard_normal((h, w, 1)).astype(np.float32), 0, 1) * np.ones(3, np.float32)
    out = np.ascontiguousarray(np.ones((h, w, 3), np.float32) * a)
    if kind == "shapes":
        for _ in range(rng.integers(4, 30)):
            c = tuple(float(v) for v in (a + (colour(rng) - a) * rng.uniform(0.2, 1)))
            p = (int(rng.integers(-20, w + 20)), int(rng.integers(-20, h + 20)))
            if rng.random() < 0.5:
                cv2.circle(out, p, int(rng.integers(3, 70)), c, -1, cv2.LINE_AA)
            else:
                pts = (np.array(p) + rng.integers(-70, 70, (rng.integers(3, 6), 2))).astype(np.int32)
                cv2.fillPoly(out, [pts], c, cv2.LINE_AA)
        if rng.random() < 0.6:
            out = cv2.GaussianBlur(out, (0, 0), rng.uniform(0.6, 9))
        return out + 0.1 * rng.random() * fractal(rng, h, w)[..., None]
    if kind == "bricks":
        bh, bw = int(rng.integers(8, 34)), int(rng.integers(18, 70))
        mortar = tuple(float(v) for v in b)
        thick = int(rng.integers(1, 4))
        for row, y in enumerate(range(-bh, h + bh, bh)):
            cv2.line(out, (0, y), (w, y), mortar, thick)
            for x in range(-bw + (row % 2) * bw // 2, w + bw, bw):
                cv2.line(out, (x, y), (x, y + bh), mortar, thick)
        return cv2.GaussianBlur(out, (0, 0), 0.7) + 0.14 * fractal(rng, h, w)[..., None]
    period, angle = rng.uniform(4, 60), rng.uniform(0, np.pi)
    y, x = np.mgrid[0:h, 0:w].astype(np.float32)
    t = np.sin((x * np.cos(angle) + y * np.sin(angle)) * 2 * np.pi / period)
    t = np.clip(t * rng.uniform(0.7, 8), -1, 1)[..., None] / 2 + 0.5
    return a * (1 - t) + b * t * rng.uniform(0.4, 1) + a * t * 0.2


def stone(rng, h, w):
    """One stuff all over, of a muted colour, a little uneven: what letters are cut into; [h, w, 3]."""
    own = colour(rng)
    own = own + (own.mean() - own) * rng.uniform(0.2, 1)
    out = graded(rng, h, w, own, own * rng.uniform(0.7, 1.2)) if rng.random() < 0.5 else np.ones((h, w, 3), np.float32) * own
    out = out * (1 + rng.choice([0, rng.uniform(0, 0.25)]) * fractal(rng, h, w)[..., None])
    return out + rng.choice([0, rng.uniform(0, 0.05)]) * rng.standard_normal((h, w, 1)).astype(np.float32)


def board(rng, base):
    """The letters' ground ends: a board, plate or label on another ground, with a rim now and then; [h, w, 3]."""
    h, w, _ = base.shape
    around = np.clip(ground(rng, h, w), 0, 1)
    y, x = np.mgrid[0:h, 0:w].astype(np.float32)
    inside = np.full((h, w), 1e3, np.float32)
    for far, along, across in ((y, x, w), (h - 1 - y, x, w), (x, y, h), (w - 1 - x, y, h)):
        if rng.random() < 0.5:
            at = rng.uniform(-2, 0.16 * h) + rng.uniform(-0.12, 0.12) * (along - across / 2)
            inside = np.minimum(inside, far - at)
    cover = np.clip(inside + 0.5, 0, 1)[..., None]
    if rng.random() < 0.4:
        around = around * (1 - rng.uniform(0.2, 0.8) * cv2.GaussianBlur(cover[..., 0], (0, 0), rng.uniform(1, 8))[..., None])
    out = around * (1 - cover) + base * cover
    if rng.random() < 0.4:
        gap, thick = rng.choice([0, rng.uniform(1, 6)]), rng.uniform(1, 5)
        rim = np.clip(inside - gap + 0.5, 0, 1) * np.clip(gap + thick - inside + 0.5, 0, 1)
        out = out * (1 - rim[..., None]) + colour(rng) * rim[..., None]
    return out.astype(np.float32)


def lay(rng, words):
    """Coverage of a line, sometimes two, in the scene; [HEIGHT, WIDTH]."""
    out = np.zeros((HEIGHT, WIDTH), np.float32)
    tall = float(np.exp(rng.uniform(np.log(20), np.log(58))))
    y, x = np.mgrid[0:HEIGHT, 0:WIDTH].astype(np.float32)
    cx, cy = WIDTH / 2 + rng.uniform(-30, 30), HEIGHT / 2 + rng.uniform(-7, 7)
    u, v = x - cx, y - cy
    # What bends the line: a turn, a bow, a wave, folds; then how it is seen.
    bent = rng.random()
    if bent < 0.25:
        v = v + rng.uniform(-1, 1) * 14 * (u / 160) ** 2
        u = u * (1 + rng.uniform(0, 0.5) * (u / 200) ** 2)
    elif bent < 0.4:
        v = v + rng.uniform(1, 5) * np.sin(u * rng.uniform(0.01, 0.05) + rng.uniform(0, 6))
    if rng.random() < 0.25:
        grain, far = rng.uniform(20, 80), rng.uniform(0.5, 4)
        u, v = u + far * smooth_field(rng, HEIGHT, WIDTH, grain), v + far * smooth_field(rng, HEIGHT, WIDTH, grain)
    turn = np.radians(rng.normal(0, 5))
    u, v = u * np.cos(turn) - v * np.sin(turn), u * np.sin(turn) + v * np.cos(turn)
    if rng.random() < 0.5:
        depth = 1 + rng.uniform(-1, 1) * 0.0022 * u + rng.uniform(-1, 1) * 0.002 * v
        depth = np.maximum(depth, 0.3)
        u, v = u / depth * rng.uniform(0.7, 1.4), v / depth
        u = u + rng.uniform(-0.35, 0.35) * v
    lines = 1 if rng.random() < 0.75 else 2
    for k in range(lines):
        word = words.pick(rng)
        s = tall / word.shape[0]
        if k:
            s *= rng.uniform(0.5, 1.3)
        small = cv2.resize(word, None, fx=s, fy=s, interpolation=cv2.INTER_AREA if s < 1 else cv2.INTER_LINEAR)
        small = cv2.copyMakeBorder(small, 1, 1, 1, 1, cv2.BORDER_CONSTANT)
        at = small.shape[1] / 2 + (rng.uniform(-0.4, 0.4) * max(0, small.shape[1] - WIDTH * 0.7))
        down = small.shape[0] / 2 - (tall * rng.uniform(1.25, 1.9) * rng.choice([-1, 1]) if k else 0)
        out = np.maximum(out, cv2.remap(small, u + np.float32(at), v + np.float32(down), cv2.INTER_LINEAR, borderValue=0))
    return out, tall


def shifted(m, dx, dy):
    return cv2.warpAffine(m, np.float32([[1, 0, dx], [0, 1, dy]]), (m.shape[1], m.shape[0]))


def swept(m, dx, dy, joined=np.maximum):
    """What letters cover on their way over (dx, dy) pixels, or cover all the way (np.minimum); their first place is left out."""
    steps = max(2, int(np.hypot(dx, dy) + 0.5))
    return joined.reduce([shifted(m, dx * k / steps, dy * k / steps) for k in range(1, steps + 1)])


def stroke_of(m, px):
    """The line along the edge of the letters, about `px` wide."""
    k = cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (2 * max(1, int(px / 2 + 0.5)) + 1,) * 2)
    return np.clip(cv2.dilate(m, k) - cv2.erode(m, k), 0, 1)


def far_colour(rng, other, least):
    """A colour that stands at least so far from another one."""
    for _ in range(20):
        c = colour(rng)
        if np.abs(c - other).max() > least:
            return c
    return 1 - other


def relief(rng, m, tall, base):
    """Raised or pressed letters of the same stuff as their ground: told by light alone. [h, w, 3]"""
    h, w = m.shape
    bevel = float(np.exp(rng.uniform(np.log(0.5), np.log(max(0.8, 0.09 * tall)))))
    height = cv2.GaussianBlur(m, (0, 0), bevel)
    if rng.random() < 0.4:
        inside = cv2.distanceTransform((m > 0.5).astype(np.uint8), cv2.DIST_L2, 3)
        height = 0.5 * height + 0.5 * np.minimum(1, inside / (bevel * 3))
    depth = rng.uniform(1.0, 5.0) * bevel * rng.choice([-1, 1])
    grain = rng.uniform(0, 0.5) * fractal(rng, h, w) * rng.choice([0, 1])
    gy, gx = np.gradient(height * depth + grain)
    angle = rng.uniform(0, 2 * np.pi)
    lean = rng.uniform(0.4, 1.4)
    light = np.array([np.cos(angle) * lean, np.sin(angle) * lean, 1.0])
    light /= np.linalg.norm(light)
    length = np.sqrt(gx * gx + gy * gy + 1)
    lit = np.maximum(0, (-gx * light[0] - gy * light[1] + light[2]) / length)
    ambient = rng.uniform(0.15, 0.6)
    shade = ambient + (1 - ambient) * lit / light[2]
    shine = rng.choice([0, 0, rng.uniform(0.1, 0.8)]) * np.maximum(0, lit) ** rng.uniform(8, 40)
    out = base * shade[..., None] + shine[..., None]
    # Faces that stand well out of their ground show their sides, each lit as it is turned.
    if depth > 0 and rng.random() < 0.4:
        deep, seen = tall * rng.uniform(0.02, 0.16), rng.uniform(0, 2 * np.pi)
        sides = swept(m, -np.cos(seen) * deep, -np.sin(seen) * deep) * (1 - m)
        my, mx = np.gradient(cv2.GaussianBlur(m, (0, 0), max(1.0, deep / 2)))
        turned = (-mx * np.cos(angle) - my * np.sin(angle)) / (np.sqrt(mx * mx + my * my) + 1e-4)
        shaded = base * (ambient + (1 - ambient) * np.maximum(0, turned) * rng.uniform(0.6, 1.4))[..., None]
        out = out * (1 - sides[..., None]) + shaded * sides[..., None]
    # The shadow that raised letters cast, or the wall of a deep press.
    far = abs(depth) / bevel * rng.uniform(0.2, 2.4) * max(1, tall / 30)
    if rng.random() < 0.3:
        far = tall * rng.uniform(0.1, 0.7)
    if rng.random() < 0.75:
        dx, dy = -np.cos(angle) * far, -np.sin(angle) * far
        if depth > 0:
            cast = swept(m, dx, dy) * (1 - m)
        else:
            cast = m * (1 - swept(m, dx, dy, np.minimum))
        cast = cv2.GaussianBlur(cast, (0, 0), rng.uniform(0.4, 3) if rng.random() < 0.6 else 0.4)
        out = out * (1 - rng.uniform(0.2, 0.8) * cast[..., None])
    # A little paint of another colour on the faces, sometimes.
    if rng.random() < 0.3:
        out = out * (1 + rng.uniform(-0.35, 0.35) * m[..., None])
    return out


def standing(rng, m, tall, base):
    """Letters with a depth, out of their ground or into it, seen from a little aside under one light: sides, shadows, shade in corners. [h, w, 3]"""
    h, w = m.shape
    sun, seen = rng.uniform(0, 2 * np.pi), rng.uniform(0, 2 * np.pi)
    deep = float(np.exp(rng.uniform(np.log(0.03 * tall), np.log(0.4 * tall))))
    aside, far = deep * rng.uniform(0, 0.7), deep * rng.uniform(0.1, 2.2)
    ambient = rng.uniform(0.15, 0.6)
    stuff = base
    if rng.random() < 0.35:
        stuff = base * rng.uniform(0.2, 0.8) + far_colour(rng, base.mean((0, 1)), 0.1) * rng.uniform(0.3, 0.8)
    gy, gx = np.gradient(cv2.GaussianBlur(m, (0, 0), max(1.0, aside / 2)))
    towards = -(gx * np.cos(sun) + gy * np.sin(sun)) / (np.sqrt(gx * gx + gy * gy) + 1e-4)

    def lit(facing):
        return (ambient + (1 - ambient) * np.maximum(0, facing) * rng.uniform(0.6, 1.3))[..., None]

    def shaded(picture, cast):
        soft = cv2.GaussianBlur(cast.astype(np.float32), (0, 0), rng.uniform(0.3, 0.4 + 0.12 * far))
        return picture * (1 - (1 - ambient) * rng.uniform(0.5, 1.1) * soft[..., None])

    dx, dy = aside * np.cos(seen), aside * np.sin(seen)
    cast = (-far * np.cos(sun), -far * np.sin(sun))
    if rng.random() < 0.6:
        sides = np.maximum(0, swept(m, dx, dy) - m)[..., None]
        foot = np.maximum(m, shifted(m, dx, dy))
        out = shaded(base, np.maximum(foot, swept(foot, *cast)) * (1 - m))
        out = out * (1 - rng.uniform(0, 0.5) * cv2.GaussianBlur(m, (0, 0), rng.uniform(0.5, 1 + deep / 2))[..., None] * (1 - m[..., None]))
        out = out * (1 - sides) + stuff * lit(towards) * sides
        out = out * (1 - m[..., None]) + stuff * rng.uniform(0.85, 1.15) * m[..., None]
    else:
        floor = np.minimum(m, shifted(m, dx, dy))
        wall = (m - floor)[..., None]
        inside = shaded(stuff * rng.uniform(0.75, 1.1), 1 - swept(m, *cast, np.minimum))
        out = base * (1 - m[..., None]) + inside * floor[..., None] + stuff * lit(-towards) * wall
    if rng.random() < 0.4:
        rim = stroke_of(m, rng.uniform(1, 1 + 0.06 * tall))
        out = out * (1 + rng.uniform(0.1, 0.7) * (towards * rng.choice([-1, 1]) * rim)[..., None])
    return out


def glow(rng, m, tall, base):
    h, w = m.shape
    tint = colour(rng)
    tint = tint / (tint.max() + 1e-3)
    if rng.random() < 0.65:
        dark = base * rng.uniform(0.05, 0.5)
        core = m
        if rng.random() < 0.4:
            core = stroke_of(m, max(1, tall * rng.uniform(0.03, 0.1)))
        halo = cv2.GaussianBlur(core, (0, 0), tall * rng.uniform(0.05, 0.2)) * rng.uniform(0.6, 2)
        wide = cv2.GaussianBlur(core, (0, 0), tall * rng.uniform(0.3, 0.8)) * rng.uniform(0.3, 1.2)
        white = rng.uniform(0, 1)
        core_colour = tint * (1 - white) + white
        out = dark + dark * wide[..., None] * tint * 2 + (halo + wide)[..., None] * tint * 0.7
        soft = cv2.GaussianBlur(core, (0, 0), rng.uniform(0.3, 1.5))[..., None]
        return out * (1 - soft) + core_colour * soft * rng.uniform(0.85, 1.4)
    # Lit from behind: dark letters in a halo, or letters of light.
    wall = base * rng.uniform(0.1, 0.6)
    halo = cv2.GaussianBlur(cv2.dilate(m, np.ones((3, 3))), (0, 0), tall * rng.uniform(0.08, 0.4)) * rng.uniform(0.8, 2)
    out = wall * (1 + 1.5 * halo[..., None]) + halo[..., None] * tint * rng.uniform(0.3, 1)
    face = colour(rng) * rng.uniform(0.02, 0.5)
    return out * (1 - m[..., None]) + face * m[..., None]


def painted(rng, m, tall, base):
    """Paint: flat, graded or textured, with an outline, a shadow or a block behind."""
    h, w = m.shape
    mean = base.mean((0, 1))
    least = rng.choice([0.13, 0.25, 0.45])
    own = far_colour(rng, mean, least)
    kind = rng.random()
    if kind < 0.45:
        fill = np.ones((h, w, 3), np.float32) * own
    elif kind < 0.75:
        fill = graded(rng, h, w, own, far_colour(rng, mean, least * 0.6))
    else:
        t = (fractal(rng, h, w)[..., None] + 1) / 2
        fill = own * (1 - t) + (own + (colour(rng) - own) * rng.uniform(0.2, 0.8)) * t
    out = base
    how = rng.random()
    if how < 0.3:
        angle, far = rng.uniform(0, 2 * np.pi), tall * rng.uniform(0.03, 0.16)
        dx, dy = far * np.cos(angle), far * np.sin(angle)
        thrown = rng.random()
        if thrown < 0.3:
            # Letters that stand out of a wall under a low sun: sides, and a shadow that hangs on to them.
            low = tall * rng.uniform(0.08, 0.7)
            turned = rng.uniform(0, 2 * np.pi)
            cast = cv2.GaussianBlur(swept(m, low * np.cos(turned), low * np.sin(turned)), (0, 0), rng.uniform(0.3, 1.5))
            out = out * (1 - rng.uniform(0.25, 0.85) * cast[..., None])
            sides = swept(m, dx, dy)[..., None] * rng.choice([0, 1])
            out = out * (1 - sides) + own * rng.uniform(0.2, 0.9) * sides
        elif thrown < 0.6:
            cast = cv2.GaussianBlur(shifted(m, dx, dy), (0, 0), rng.uniform(0.3, 0.12 * tall))
            out = out * (1 - rng.uniform(0.3, 0.95) * cast[..., None])
        else:
            steps = max(2, int(far * 1.5))
            block = np.maximum.reduce([shifted(m, dx * k / steps, dy * k / steps) for k in range(1, steps + 1)])
            side = far_colour(rng, own, 0.2)
            out = out * (1 - block[..., None]) + side * block[..., None]
    if 0.2 < how < 0.62:
        px = rng.uniform(1, max(1.5, rng.choice([0.07, 0.13]) * tall))
        line = far_colour(rng, own, 0.25)
        if rng.random() < 0.3:
            # Hollow letters: the line alone.
            edge = stroke_of(m, px)[..., None]
            return out * (1 - edge) + line * edge
        k = cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (2 * max(1, int(px + 0.5)) + 1,) * 2)
        around = cv2.dilate(m, k)
        if rng.random() < 0.2:
            own_gap = cv2.dilate(around, k)
            second = colour(rng)
            out = out * (1 - own_gap[..., None]) + second * own_gap[..., None]
        out = out * (1 - around[..., None]) + line * around[..., None]
        if rng.random() < 0.2:
            fill = base
    cover = m
    if rng.random() < 0.18:
        # Worn, printed thinly, or sprayed.
        worn = fractal(rng, h, w)
        cover = m * np.clip(0.5 + (worn + rng.uniform(0, 0.8)) * rng.uniform(1, 5), rng.uniform(0, 0.5), 1)
    return out * (1 - cover[..., None]) + fill * cover[..., None]


def printed(rng, m, tall, base):
    """Ink on paper: spread, ragged, screened."""
    h, w = m.shape
    paper = np.ones((h, w, 3), np.float32) * rng.uniform(0.7, 1) * (1 - rng.uniform(0, 0.12, 3).astype(np.float32))
    paper = paper + rng.uniform(0, 0.06) * fractal(rng, h, w)[..., None]
    ink = colour(rng) * rng.uniform(0, 0.5)
    soft = cv2.GaussianBlur(m, (0, 0), rng.uniform(0.4, 1.6))
    ragged = soft + rng.uniform(0, 0.28) * smooth_field(rng, h, w, rng.uniform(1.2, 4))
    cover = np.clip((ragged - rng.uniform(0.25, 0.65)) * rng.uniform(2, 8) + 0.5, 0, 1)
    if rng.random() < 0.45:
        period, angle = rng.uniform(2.2, 6), rng.uniform(0, np.pi)
        y, x = np.mgrid[0:h, 0:w].astype(np.float32)
        a, b = x * np.cos(angle) + y * np.sin(angle), -x * np.sin(angle) + y * np.cos(angle)
        dots = np.cos(a * 2 * np.pi / period) * 0.5 + np.cos(b * 2 * np.pi / period) * 0.5
        level = rng.uniform(-0.4, 0.8)
        tone = np.clip((dots + level) * 3 + 0.5, 0, 1)
        cover = cover * tone
        if rng.random() < 0.4:
            paper = paper * (1 - 0.4 * np.clip((dots - rng.uniform(0, 0.7)) * 3 + 0.5, 0, 1)[..., None])
    if rng.random() < 0.25:
        paper, ink = np.ones((h, w, 3), np.float32) * ink, paper.mean((0, 1))
    return paper * (1 - cover[..., None]) + ink * cover[..., None]


def camera(rng, out, tall):
    h, w, _ = out.shape
    # Most pictures are taken well enough, and smaller here than they were.
    poor = rng.choice([0.25, 1], p=[0.6, 0.4])
    light = np.ones((h, w), np.float32)
    if rng.random() < 0.6:
        light = light * (1 + rng.uniform(0.05, 0.45) * smooth_field(rng, h, w, rng.uniform(80, 300)))
    if rng.random() < 0.15:
        # The edge of a shadow, or a reflex, over the whole.
        edge = np.clip(graded(rng, h, w, np.float32(-1), np.float32(1))[..., 0] * rng.uniform(4, 40) + rng.uniform(-6, 6), 0, 1)
        light = light * (1 - rng.uniform(0.2, 0.6) * edge)
    out = out * np.maximum(0.1, light)[..., None]
    if rng.random() < 0.1:
        at = (int(rng.integers(0, w)), int(rng.integers(0, h)))
        spot = np.zeros((h, w), np.float32)
        cv2.ellipse(spot, at, (int(rng.integers(4, 60)), int(rng.integers(3, 30))), float(rng.uniform(0, 180)), 0, 360, 1.0, -1)
        out = out + rng.uniform(0.2, 0.8) * cv2.GaussianBlur(spot, (0, 0), rng.uniform(2, 12))[..., None]
    if rng.random() < 0.08:
        # A screen: stripes of red, green and blue, and rows.
        period = rng.uniform(1.7, 4)
        x = np.arange(w, dtype=np.float32)
        for c in range(3):
            out[..., c] = out[..., c] * (1 - rng.uniform(0.2, 0.7) * (0.5 + 0.5 * np.cos(2 * np.pi * (x / period + c / 3))))[None]
        y = np.arange(h, dtype=np.float32)
        out = out * (1 - rng.uniform(0, 0.5) * (0.5 + 0.5 * np.cos(2 * np.pi * y / period)))[:, None, None] * 1.4
    if rng.random() < 0.25 * poor:
        # Coarser than it is, as a frame of a film is.
        s = rng.uniform(0.35, 0.95)
        out = cv2.resize(cv2.resize(out, None, fx=s, fy=s, interpolation=cv2.INTER_AREA), (w, h), interpolation=int(rng.choice([cv2.INTER_LINEAR, cv2.INTER_CUBIC])))
    blur = rng.choice([0, rng.uniform(0.3, 1.0), poor * rng.uniform(0.6, 0.05 * tall + 0.7)])
    if blur > 0.2:
        out = cv2.GaussianBlur(out, (0, 0), float(blur))
    if rng.random() < 0.1 * poor:
        n = int(rng.integers(2, 2 + max(1, int(tall * 0.12))))
        k = np.zeros((n, n), np.float32)
        cv2.line(k, (0, int(rng.integers(0, n))), (n - 1, int(rng.integers(0, n))), 1)
        out = cv2.filter2D(out, -1, k / k.sum())
    out = np.clip(out, 0, 1.2)
    if rng.random() < 0.3:
        out = out * (1 + rng.uniform(-0.15, 0.15, 3).astype(np.float32))
    if rng.random() < 0.5:
        out = np.clip(out, 0, 1) ** rng.uniform(0.6, 1.5)
    if rng.random() < 0.6:
        noise = rng.standard_normal((h, w, 3 if rng.random() < 0.5 else 1)).astype(np.float32)
        if rng.random() < 0.3:
            noise = cv2.GaussianBlur(noise, (0, 0), 0.8).reshape(h, w, -1) * 2
        out = out + rng.uniform(0, 0.07) * poor * noise
    if rng.random() < 0.2:
        out = out + rng.uniform(0.2, 1.2) * (out - cv2.GaussianBlur(out, (0, 0), rng.uniform(0.8, 2)))
    out = (np.clip(out, 0, 1) * 255).astype(np.uint8)
    if rng.random() < 0.6:
        quality = int(rng.uniform(95 - 83 * poor, 95))
        out = cv2.imdecode(cv2.imencode(".jpg", out, [cv2.IMWRITE_JPEG_QUALITY, quality])[1], cv2.IMREAD_COLOR)
    return out


def sample(rng, words):
    """@returns picture uint8 [HEIGHT, WIDTH, 3] and coverage uint8 [HEIGHT, WIDTH]."""
    if rng.random() < 0.04:
        m, tall = np.zeros((HEIGHT, WIDTH), np.float32), 40.0
    else:
        m, tall = lay(rng, words)
    make = rng.choice([painted, relief, standing, glow, printed], p=[0.36, 0.22, 0.2, 0.11, 0.11])
    on = stone if make in (relief, standing) and rng.random() < 0.6 else ground
    base = np.clip(on(rng, HEIGHT, WIDTH), 0, 1).astype(np.float32)
    if rng.random() < 0.3:
        base = board(rng, base)
    out = make(rng, m, tall, base)
    return camera(rng, out.astype(np.float32), tall), (m * 255).astype(np.uint8)
