"use client";
// Letters drawn by hand: the nearest faces by shape and proportion, with what agrees. No claim that it is one of them.
import Link from "next/link";
import { useCallback, useEffect, useRef, useState } from "react";
import type { Identification } from "@/contracts/identify";
import { useBench } from "../bench/BenchContext";
import { isTyping } from "../bench/Bench";
import { writeFault } from "../messages";
import { FaultNote } from "../parts/FaultNote";
import { ask, faultOf } from "../parts/client";
import { MatchRow, useDetails } from "./MatchRow";

type Stroke = { widthPx: number; points: [number, number][] };
const [WIDE, HIGH] = [1000, 380];
const PENS = [
  { widthPx: 6, name: "Thin" },
  { widthPx: 14, name: "Medium" },
  { widthPx: 30, name: "Thick" },
];
/** Strokes and words stay while the window is open. */
const KEPT_AT = "sketch";

export function SketchView() {
  const { brief, dispatch } = useBench();
  const [strokes, setStrokes] = useState<Stroke[]>([]);
  const [undone, setUndone] = useState<Stroke[]>([]);
  const [pen, setPen] = useState(14);
  const [text, setText] = useState("");
  const [busy, setBusy] = useState(false);
  const [result, setResult] = useState<Identification | null>(null);
  const [fault, setFault] = useState<{ what: string; now: string } | null>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const isDrawing = useRef(false);

  useEffect(() => {
    try {
      const kept = JSON.parse(sessionStorage.getItem(KEPT_AT) ?? "") as { strokes: Stroke[]; text: string };
      // eslint-disable-next-line react-hooks/set-state-in-effect -- read after the first drawing, which the server made without it
      setStrokes(kept.strokes);
      setText(kept.text);
    } catch {
      // Nothing was drawn yet.
    }
  }, []);
  useEffect(() => {
    if (strokes.length || text) sessionStorage.setItem(KEPT_AT, JSON.stringify({ strokes, text }));
    drawStrokes(canvas.current, strokes);
  }, [strokes, text]);
  useEffect(() => {
    dispatch({
      type: "facts",
      facts: strokes.length ? [`${strokes.length} ${strokes.length === 1 ? "stroke" : "strokes"}`] : [],
      keys: [{ key: "Ctrl Z", does: "take a stroke back" }],
    });
  }, [strokes.length, dispatch]);

  const undo = useCallback(() => {
    const last = strokes[strokes.length - 1];
    if (!last) return;
    setStrokes(strokes.slice(0, -1));
    setUndone([...undone, last]);
  }, [strokes, undone]);
  const redo = useCallback(() => {
    const last = undone[undone.length - 1];
    if (!last) return;
    setUndone(undone.slice(0, -1));
    setStrokes([...strokes, last]);
  }, [strokes, undone]);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (isTyping(event) || !(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== "z") return;
      event.preventDefault();
      (event.shiftKey ? redo : undo)();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [undo, redo]);

  const at = (event: React.PointerEvent<HTMLCanvasElement>): [number, number] => {
    const box = event.currentTarget.getBoundingClientRect();
    const scale = WIDE / box.width;
    return [Math.round((event.clientX - box.left) * scale), Math.round((event.clientY - box.top) * scale)];
  };
  const compare = async () => {
    const picture = await new Promise<Blob | null>((resolve) => canvas.current!.toBlob(resolve, "image/png"));
    if (!picture) return;
    setBusy(true);
    setFault(null);
    const form = new FormData();
    form.append("image", new File([picture], "sketch.png", { type: "image/png" }));
    form.append("limit", "12");
    form.append("sketch", "true");
    if (text.trim()) form.append("text", text.trim());
    try {
      const answer = await ask("identify", { form });
      setResult(answer);
      if (!text.trim()) setText(answer.reading.text);
    } catch (error) {
      setResult(null);
      setFault(writeFault(faultOf(error)));
    } finally {
      setBusy(false);
    }
  };

  return (
    <div className="grid h-full grid-cols-[minmax(0,1.36fr)_minmax(0,1fr)]">
      <section className="min-h-0 overflow-y-auto px-4 py-3" aria-label="Sketch">
        <p className="text-basalt">
          Draw a few letters as you have them in mind; or take a photograph of your drawing and give it{" "}
          <Link href={`/b/${brief.briefId}/identify`} className="underline">
            as a picture
          </Link>
          .
        </p>
        <canvas
          ref={canvas}
          width={WIDE}
          height={HIGH}
          aria-label="Drawing area"
          className="mt-3 w-full touch-none cursor-crosshair border border-rule bg-[#ffffff]"
          onPointerDown={(e) => {
            e.currentTarget.setPointerCapture(e.pointerId);
            isDrawing.current = true;
            setUndone([]);
            setStrokes([...strokes, { widthPx: pen, points: [at(e)] }]);
          }}
          onPointerMove={(e) => {
            if (!isDrawing.current) return;
            const point = at(e);
            setStrokes((now) => [
              ...now.slice(0, -1),
              { ...now[now.length - 1]!, points: [...now[now.length - 1]!.points, point] },
            ]);
          }}
          onPointerUp={() => (isDrawing.current = false)}
          onPointerCancel={() => (isDrawing.current = false)}
        />
        <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-2">
          <span className="flex gap-2" role="group" aria-label="Pen">
            {PENS.map((p) => (
              <button
                key={p.widthPx}
                type="button"
                aria-pressed={pen === p.widthPx}
                className={pen === p.widthPx ? "font-bold text-tide underline underline-offset-4" : ""}
                onClick={() => setPen(p.widthPx)}
              >
                {p.name}
              </button>
            ))}
          </span>
          <button type="button" className="underline" disabled={!strokes.length} onClick={undo}>
            Undo
          </button>
          <button type="button" className="underline" disabled={!undone.length} onClick={redo}>
            Redo
          </button>
          <button
            type="button"
            className="underline"
            disabled={!strokes.length}
            onClick={() => {
              setUndone([...undone, ...[...strokes].reverse()]);
              setStrokes([]);
              setResult(null);
            }}
          >
            Clear
          </button>
        </div>
        <form
          className="mt-3 flex items-baseline gap-3"
          onSubmit={(e) => {
            e.preventDefault();
            void compare();
          }}
        >
          <label className="shrink-0 font-semibold" htmlFor="drawn">
            Text
          </label>
          <input
            id="drawn"
            className="field text-[17px]"
            maxLength={60}
            placeholder="the letters you drew"
            value={text}
            onChange={(e) => setText(e.target.value)}
          />
          <button type="submit" className="btn btn-act" disabled={busy || !strokes.length}>
            {busy ? "Comparing …" : "Find the nearest"}
          </button>
        </form>
        {fault && <FaultNote fault={fault} />}
      </section>
      <Nearest result={result} />
    </div>
  );
}

function drawStrokes(canvas: HTMLCanvasElement | null, strokes: readonly Stroke[]) {
  const pen = canvas?.getContext("2d");
  if (!pen) return;
  pen.fillStyle = "#fff";
  pen.fillRect(0, 0, WIDE, HIGH);
  pen.strokeStyle = "#111";
  pen.lineCap = "round";
  pen.lineJoin = "round";
  for (const { widthPx, points } of strokes) {
    pen.lineWidth = widthPx;
    pen.beginPath();
    points.forEach(([x, y], i) => (i ? pen.lineTo(x, y) : pen.moveTo(x, y)));
    // A tap is a dot.
    if (points.length === 1) pen.lineTo(points[0]![0] + 0.1, points[0]![1]);
    pen.stroke();
  }
}

function Nearest({ result }: { result: Identification | null }) {
  const matches = result?.matches ?? [];
  const details = useDetails(matches.map((m) => m.styleId));
  return (
    <section aria-label="Nearest faces" className="min-h-0 overflow-y-auto border-l border-rule bg-chalk px-4 py-3">
      <h1 className="text-[17px] font-bold" aria-live="polite">
        {result ? "Nearest to what you drew." : "Draw, say what it says, and the nearest faces come here."}
      </h1>
      {result && (
        <p className="mt-0.5 text-basalt">
          By the shape and the proportions of the letters. None of them need be the one.
        </p>
      )}
      <ol className="mt-2">
        {matches.map((m, i) => (
          <MatchRow
            key={m.styleId}
            match={{ styleId: m.styleId, family: m.family, style: m.style }}
            detail={details[i]}
            text={result!.reading.text}
            axes={m.coordinates}
          >
            <p className="text-[12px] text-basalt">{writeAgreement(m.letters)}</p>
          </MatchRow>
        ))}
      </ol>
    </section>
  );
}

/** Which letters come near, and which do not. */
function writeAgreement(letters: Identification["matches"][number]["letters"]): string {
  const sorted = [...letters].sort((a, b) => b.agreement - a.agreement);
  const names = (list: typeof sorted) => [...new Set(list.map((l) => l.char))].slice(0, 4).join(", ");
  const half = Math.max(1, Math.floor(sorted.length / 3));
  const off = sorted.slice(-half).filter((l) => l.agreement < (sorted[0]?.agreement ?? 0) - 0.08);
  return `closest: ${names(sorted.slice(0, half))}${off.length ? `; furthest: ${names(off)}` : ""}`;
}
