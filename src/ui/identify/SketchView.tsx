"use client";
// Letters drawn by hand: the nearest faces by shape and proportion, with what agrees. No claim that it is one of them.
import Link from "next/link";
import { useEffect, useMemo, useRef, useState, type RefObject } from "react";
import type { Identification } from "@/contracts/identify";
import { useBench } from "../bench/BenchContext";
import { bindUndo, useCommandStack, useViewCommands } from "../bench/useCommands";
import { useKeys } from "../bench/useKeys";
import { writeFault } from "../messages";
import { FaultNote } from "../parts/FaultNote";
import { ask, faultOf } from "../parts/client";
import { MatchRow, useDetails } from "./MatchRow";
import { drawStrokes, SHEET, strokesOf, type SketchChange, type Stroke } from "./strokes";

const PENS = [
  { widthPx: 6, name: "Thin" },
  { widthPx: 14, name: "Medium" },
  { widthPx: 30, name: "Thick" },
];
/** Words stay while the window is open, as strokes do. */
const KEPT_AT = "sketch text";

export function SketchView() {
  const { brief, dispatch } = useBench();
  const own = useStrokes();
  const { strokes, text } = own;
  const canvas = useRef<HTMLCanvasElement>(null);
  const nearest = useNearest(canvas, text, own.setText);
  useEffect(() => drawStrokes(canvas.current, strokes), [strokes]);
  useEffect(() => {
    const count = `${strokes.length} ${strokes.length === 1 ? "stroke" : "strokes"}`;
    dispatch({ type: "facts", facts: strokes.length ? [count] : [] });
  }, [strokes.length, dispatch]);
  useKeys("Sketch", [
    ...bindUndo({ ...own, undoLegend: "undo the last stroke", redoLegend: "redo it", isInFootLine: true }),
  ]);
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
        <Drawing canvas={canvas} own={own} />
        <Pens
          own={own}
          onClear={() => {
            own.clear();
            nearest.forget();
          }}
        />
        <form
          className="mt-3 flex items-baseline gap-3"
          onSubmit={(e) => {
            e.preventDefault();
            void nearest.compare();
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
            onChange={(e) => own.setText(e.target.value)}
          />
          <button type="submit" className="btn btn-act" disabled={nearest.isBusy || !strokes.length}>
            {nearest.isBusy ? "Comparing …" : "Find the nearest"}
          </button>
        </form>
        {nearest.fault && <FaultNote fault={nearest.fault} />}
      </section>
      <Nearest result={nearest.result} />
    </div>
  );
}

type OwnStrokes = ReturnType<typeof useStrokes>;

/** Strokes, their undo and redo, the pen, and what was written: kept while the window is open. */
function useStrokes() {
  /** The stroke that is being drawn. */
  const [drawn, setDrawn] = useState<Stroke | null>(null);
  const [pen, setPen] = useState(14);
  const [text, setText] = useKeptText();
  // What is on the sheet follows from what was done and not taken back: there is nothing to apply.
  const commands = useViewCommands(useCommandStack<SketchChange>("sketch"), () => {});
  const { done, run } = commands;
  const change = (made: SketchChange) => run(made, made);
  const begin = (point: [number, number]) => setDrawn({ widthPx: pen, points: [point] });
  const extend = (point: [number, number]) =>
    setDrawn((stroke) => stroke && { ...stroke, points: [...stroke.points, point] });
  const end = () => {
    if (drawn) change({ type: "draw", stroke: drawn });
    setDrawn(null);
  };
  const clear = () => change({ type: "clear" });
  const strokes = useMemo(() => [...strokesOf(done), ...(drawn ? [drawn] : [])], [done, drawn]);
  return { strokes, pen, setPen, text, setText, begin, extend, end, clear, ...commands };
}

function useKeptText() {
  const [text, setText] = useState("");
  useEffect(() => {
    // oxlint-disable-next-line react/set-state-in-effect -- read after the first drawing, which the server made without it
    setText(sessionStorage.getItem(KEPT_AT) ?? "");
  }, []);
  const put = (typed: string) => {
    setText(typed);
    sessionStorage.setItem(KEPT_AT, typed);
  };
  return [text, put] as const;
}

type Asked = { isBusy: boolean; result: Identification | null; fault: { what: string; now: string } | null };
const NOT_ASKED: Asked = { isBusy: false, result: null, fault: null };

/** The faces nearest to the drawing. */
function useNearest(canvas: RefObject<HTMLCanvasElement | null>, text: string, onRead: (text: string) => void) {
  const [asked, setAsked] = useState<Asked>(NOT_ASKED);
  const compare = async () => {
    const picture = await new Promise<Blob | null>((resolve) => canvas.current!.toBlob(resolve, "image/png"));
    if (!picture) return;
    setAsked((now) => ({ ...now, isBusy: true, fault: null }));
    const form = new FormData();
    form.append("image", new File([picture], "sketch.png", { type: "image/png" }));
    form.append("limit", "12");
    form.append("sketch", "true");
    if (text.trim()) form.append("text", text.trim());
    try {
      const answer = await ask("identify", { form });
      setAsked({ ...NOT_ASKED, result: answer });
      if (!text.trim()) onRead(answer.reading.text);
    } catch (error) {
      setAsked({ ...NOT_ASKED, fault: writeFault(faultOf(error)) });
    }
  };
  return { ...asked, compare, forget: () => setAsked(NOT_ASKED) };
}

function Drawing({ canvas, own }: { canvas: RefObject<HTMLCanvasElement | null>; own: OwnStrokes }) {
  const isDrawing = useRef(false);
  const at = (event: React.PointerEvent<HTMLCanvasElement>): [number, number] => {
    const box = event.currentTarget.getBoundingClientRect();
    const scale = SHEET.width / box.width;
    return [Math.round((event.clientX - box.left) * scale), Math.round((event.clientY - box.top) * scale)];
  };
  const end = () => {
    isDrawing.current = false;
    own.end();
  };
  return (
    <canvas
      ref={canvas}
      width={SHEET.width}
      height={SHEET.height}
      aria-label="Drawing area"
      className="mt-3 w-full cursor-crosshair touch-none border border-rule bg-[#ffffff]"
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        isDrawing.current = true;
        own.begin(at(e));
      }}
      onPointerMove={(e) => isDrawing.current && own.extend(at(e))}
      onPointerUp={end}
      onPointerCancel={end}
    />
  );
}

function Pens({ own, onClear }: { own: OwnStrokes; onClear: () => void }) {
  const { strokes, pen, setPen } = own;
  const action = (name: string, onClick: () => void, isOn: boolean) => (
    <button type="button" className="underline" disabled={!isOn} onClick={onClick}>
      {name}
    </button>
  );
  return (
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
      {action("Undo", own.undo, own.canUndo)}
      {action("Redo", own.redo, own.canRedo)}
      {action("Clear", onClear, strokes.length > 0)}
    </div>
  );
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
