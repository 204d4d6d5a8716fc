"use client";
// The straightened line with the face laid over it, the cut letters below in step, a line under each for how far it disagrees. Letters
// can be cut by hand: typed, split, merged, dropped, their marks moved.
import { useRef, useState } from "react";
import type { HandCut, Identification, IdentifyMatch } from "@/contracts/identify";
import { cutsOf, dropCut, mergeCuts, moveCut, nameCut, readingOf, splitCut, type Cut } from "./cuts";

type Props = {
  result: Identification;
  match: IdentifyMatch;
  lay: number;
  busy: boolean;
  onLay: (lay: number) => void;
  onCut: (cut: HandCut, reading: string) => void;
};

export function Strip({ result, match, lay, busy, onLay, onCut }: Props) {
  const { strip, reading } = result;
  const [isTinted, setTinted] = useState(false);
  const own = useCuts(result, onCut);
  const { letters } = match;
  const isUntouched = own.cuts.length === letters.length && own.cuts.every((c, i) => c.char === letters[i]?.char);
  const agreements = isUntouched ? letters.map((l) => l.agreement) : null;
  return (
    <section aria-label="The line and the face laid over it">
      <LaidOver strip={strip} match={match} lay={lay} isTinted={isTinted} own={own} agreements={agreements} />
      <div className="mt-2 flex items-center gap-3">
        <span className="text-basalt">picture</span>
        <input
          type="range"
          min={0}
          max={100}
          value={lay}
          disabled={isTinted}
          aria-label="From picture to face"
          className="flex-1"
          onChange={(e) => onLay(Number(e.target.value))}
        />
        <span className="text-basalt">face</span>
        <button type="button" className="btn-quiet" aria-pressed={isTinted} onClick={() => setTinted(!isTinted)}>
          Difference
        </button>
      </div>
      {isTinted && (
        <p className="mt-1 text-[12px]">
          <b className="text-oxide">Picture alone</b>, <b className="text-tide">face alone</b>; dark where both agree.
        </p>
      )}
      <p className="mt-1.5">
        Read as <b>{reading.text}</b>
        {reading.given
          ? ""
          : ` (automatically, ${Math.round(reading.confidence * 100)} % sure; correct it above if needed)`}
        .{" "}
        {strip.cut === "letters"
          ? "The thicker the line below a letter, the less it agrees with the match in focus."
          : "Its letters touch or could not be cut one by one, so whole words were compared."}
      </p>
      <CutEditor own={own} agreements={agreements} busy={busy} />
      <ul className={isUntouched ? "sr-only" : "num mt-1 flex flex-wrap gap-x-3"} aria-label="Agreement of each letter">
        {letters.map((l, i) => (
          <li key={i}>
            {l.char} {l.agreement.toFixed(2)}
          </li>
        ))}
      </ul>
    </section>
  );
}

type OwnCuts = ReturnType<typeof useCuts>;

/** The cuts as a person changes them, and which one is in hand. */
function useCuts({ strip, reading }: Identification, onCut: Props["onCut"]) {
  const [cuts, setCuts] = useState<Cut[]>(() => cutsOf(reading.letters));
  const [at, setAt] = useState(0);
  const change = (next: Cut[], focus = at) => {
    setCuts(next);
    setAt(Math.max(0, Math.min(next.length - 1, focus)));
  };
  const send = () => {
    const sent = cuts.map((c) => ({
      char: c.char,
      box: { x: c.left, y: c.top, width: Math.max(1, c.right - c.left), height: Math.max(1, c.bottom - c.top) },
    }));
    onCut({ reading: strip.reading, leanTan: strip.leanTan, letters: sent }, readingOf(cuts, reading.text));
  };
  const reset = () => change(cutsOf(reading.letters), 0);
  return { cuts, at, setAt, setCuts, change, send, reset };
}

/** Keys of the cuts: arrows move, a letter names. What is not for them goes on to the page. */
function pressOnCuts({ cuts, at, change, send }: OwnCuts, event: React.KeyboardEvent) {
  if (event.ctrlKey || event.metaKey || event.altKey) return;
  const { key } = event;
  if (key === "ArrowRight" && event.shiftKey) change(moveCut(cuts, at, cuts[at]!.left + 1));
  else if (key === "ArrowLeft" && event.shiftKey) change(moveCut(cuts, at, cuts[at]!.left - 1));
  else if (key === "ArrowRight") change(cuts, at + 1);
  else if (key === "ArrowLeft") change(cuts, at - 1);
  else if (key === "Delete") change(dropCut(cuts, at));
  else if (key === "Backspace") change(at > 0 ? mergeCuts(cuts, at - 1) : cuts, at - 1);
  else if (key === "Enter") send();
  else if (key === "Tab" || key === "Escape" || key.length > 2) return;
  else change(nameCut(cuts, at, key), at + 1);
  event.preventDefault();
  event.stopPropagation();
}

type LaidProps = {
  strip: Identification["strip"];
  match: IdentifyMatch;
  lay: number;
  isTinted: boolean;
  own: OwnCuts;
  agreements: number[] | null;
};

function LaidOver({ strip, match, lay, isTinted, own, agreements }: LaidProps) {
  const { widthPx: w, heightPx: h } = strip;
  const ground = useRef<SVGSVGElement>(null);
  const held = useRef<number | null>(null);
  const drag = (event: React.PointerEvent) => {
    if (held.current === null || !ground.current) return;
    const box = ground.current.getBoundingClientRect();
    const scale = Math.min(box.width / w, box.height / (h + 22));
    const x = (event.clientX - box.left - (box.width - w * scale) / 2) / scale;
    own.setCuts(moveCut(own.cuts, held.current, x));
  };
  const letGo = () => (held.current = null);
  return (
    <svg
      ref={ground}
      viewBox={`0 0 ${w} ${h + 22}`}
      className="block max-h-[210px] w-full touch-none bg-[#fbf9f4]"
      role="img"
      aria-label={`${match.family} ${match.style} laid over the picture`}
      onPointerMove={drag}
      onPointerUp={letGo}
      onPointerCancel={letGo}
    >
      <filter id="tint" colorInterpolationFilters="sRGB">
        {/* Black ink becomes oxide, paper stays white. */}
        <feColorMatrix values="0.34 0 0 0 0.66  0.74 0 0 0 0.26  0.9 0 0 0 0.1  0 0 0 1 0" />
      </filter>
      <image
        href={strip.png}
        width={w}
        height={h}
        opacity={isTinted ? 1 : Math.min(1, 2 - lay / 50)}
        filter={isTinted ? "url(#tint)" : undefined}
      />
      <g style={{ mixBlendMode: "multiply" }}>
        <path
          d={match.overlay.path}
          fill={isTinted ? "#1c6b74" : "#a8431a"}
          fillRule="nonzero"
          opacity={isTinted ? 1 : Math.min(1, lay / 50) * 0.75}
        />
      </g>
      {own.cuts.map((cut, i) => (
        <g key={i}>
          <CutMark
            cut={cut}
            index={i}
            heightPx={h}
            isInHand={i === own.at}
            onTake={(event) => {
              held.current = i;
              own.setAt(i);
              event.currentTarget.setPointerCapture(event.pointerId);
            }}
          />
          <Below cut={cut} heightPx={h} off={agreements ? 1 - (agreements[i] ?? 0) : null} />
        </g>
      ))}
    </svg>
  );
}

type MarkProps = {
  cut: Cut;
  index: number;
  heightPx: number;
  isInHand: boolean;
  onTake: (event: React.PointerEvent<SVGRectElement>) => void;
};

function CutMark({ cut, index, heightPx, isInHand, onTake }: MarkProps) {
  const x = cut.left - 0.5;
  return (
    <>
      {isInHand && (
        <rect x={cut.left} y={0} width={cut.right - cut.left} height={heightPx} fill="#1c6b74" opacity={0.09} />
      )}
      <line
        x1={x}
        x2={x}
        y1={0}
        y2={heightPx}
        stroke="#a8431a"
        strokeWidth={isInHand ? 1.2 : 0.6}
        strokeDasharray="2 2"
      />
      {/* Broad enough to be taken hold of. */}
      <rect
        x={cut.left - 4}
        y={0}
        width={8}
        height={heightPx}
        fill="transparent"
        className="cursor-ew-resize"
        data-mark={index}
        onPointerDown={onTake}
      />
    </>
  );
}

function CutEditor({ own, agreements, busy }: { own: OwnCuts; agreements: number[] | null; busy: boolean }) {
  const { cuts, at, setAt, change, send, reset } = own;
  const read = cuts.map((c) => c.char || "unread").join(" ");
  const action = (name: string, onClick: () => void, disabled = false) => (
    <button type="button" className="underline" disabled={disabled} onClick={onClick}>
      {name}
    </button>
  );
  return (
    <div
      role="group"
      tabIndex={0}
      data-cuts={cuts.length}
      aria-label={`Letters cut: ${read}. Letter ${at + 1} of ${cuts.length}. Arrows move, a key names, Delete drops, Backspace merges, Enter compares.`}
      className="mt-2 border border-rule px-2 py-1.5"
      onKeyDown={(event) => pressOnCuts(own, event)}
    >
      <ul className="flex flex-wrap gap-1" aria-hidden>
        {cuts.map((c, i) => (
          <li key={i}>
            <button
              type="button"
              tabIndex={-1}
              className={`num min-w-8 px-1.5 py-0.5 ${i === at ? "bg-slate text-chalk" : "bg-chalk"}`}
              onClick={() => setAt(i)}
            >
              {c.char || "·"} {agreements && <span className="text-[10px]">{(agreements[i] ?? 0).toFixed(2)}</span>}
            </button>
          </li>
        ))}
      </ul>
      <div className="mt-1.5 flex flex-wrap items-center gap-x-4 text-[12px]">
        {action("Split", () => change(splitCut(cuts, at)))}
        {action("Merge with next", () => change(mergeCuts(cuts, at)), at >= cuts.length - 1)}
        {action("Delete piece", () => change(dropCut(cuts, at)), cuts.length < 2)}
        {action("Reset", reset)}
        <button type="button" className="btn ml-auto" disabled={busy || !cuts.length} onClick={send}>
          Compare with these cuts
        </button>
      </div>
    </div>
  );
}

/** Under a letter: what it was read as, and a line that thickens as it disagrees. */
function Below({ cut, heightPx, off }: { cut: Cut; heightPx: number; off: number | null }) {
  return (
    <>
      <text
        x={(cut.left + cut.right) / 2}
        y={heightPx + 10}
        textAnchor="middle"
        fontSize={10}
        fill="#20262b"
        fontFamily="var(--font-sans)"
      >
        {cut.char}
      </text>
      {off !== null && (
        <rect
          x={cut.left}
          y={heightPx + 14}
          width={Math.max(1, cut.right - cut.left)}
          height={1 + off * 14}
          fill={off > 0.3 ? "#8a5f00" : "#1c6b74"}
        >
          <title>{`${cut.char}: agreement ${(1 - off).toFixed(2)}`}</title>
        </rect>
      )}
    </>
  );
}
