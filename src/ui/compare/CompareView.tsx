"use client";
// Compare: which of these, and why. A sentence says what differs most; below it the faces as columns, in the brief's words, several ways.
import Link from "next/link";
import { parseAsInteger, parseAsString, parseAsStringLiteral, useQueryStates } from "nuqs";
import { useEffect, useRef, useState } from "react";
import { COMPARED_AT_MOST, type Comparison } from "@/contracts/compare";
import type { ShownItem } from "@/contracts/styles";
import { useBench } from "../bench/BenchContext";
import { nameOf } from "../find/facts";
import { useActiveLine } from "../bench/BriefStrip";
import { useKeys } from "../bench/useKeys";
import { writeFault } from "../messages";
import { faultOf } from "../parts/client";
import { CareMark } from "../parts/CareMark";
import { FaultNote } from "../parts/FaultNote";
import { useMeasured } from "../parts/useMeasured";
import { writeSetting } from "../parts/sampleOf";
import { VerdictMark } from "../parts/VerdictMark";
import { useComparing } from "../bench/comparing";
import { CoreBeside } from "./CoreBeside";
import { LaidOver } from "./LaidOver";
import { PictureWay } from "./PictureWay";
import { Told, useShown, type Shown } from "./Told";
import { useCompared } from "./useCompared";
import {
  columnsOf,
  DrawnColumns,
  FiguresWay,
  LABEL_PX,
  LetterBand,
  OnPageWay,
  SiblingsBand,
  SizesWay,
  useDrawnColumns,
  WordsWay,
  type WayProps,
} from "./Ways";

const WAYS = [
  { way: "words", name: "Words" },
  { way: "letter", name: "One letter" },
  { way: "figures", name: "Figures" },
  { way: "over", name: "Laid over" },
  { way: "page", name: "On a page" },
  { way: "picture", name: "On the picture" },
  { way: "sizes", name: "Sizes" },
] as const;
type Way = (typeof WAYS)[number]["way"];

const address = {
  faces: parseAsString,
  way: parseAsStringLiteral(WAYS.map((w) => w.way)).withDefault("words"),
  letter: parseAsString,
  column: parseAsInteger.withDefault(0),
};

export function CompareView() {
  const comparing = useComparing();
  const [at, setAt] = useQueryStates(address, { history: "replace" });
  // A link shows the faces of whoever made it.
  const linked = useRef(at.faces);
  useEffect(() => {
    if (linked.current) comparing.put(linked.current.split(","));
    linked.current = null;
  }, [comparing]);
  const { ids } = comparing;
  useEffect(() => {
    void setAt({ faces: ids.length ? ids.join(",") : null });
  }, [ids, setAt]);
  if (ids.length < 2) return <TooFew ids={ids} />;
  return <Columns ids={ids} at={at} setAt={(change) => void setAt(change)} />;
}

function TooFew({ ids }: { ids: readonly string[] }) {
  const { brief } = useBench();
  const comparing = useComparing();
  const kept = [...new Set(brief.kept.map((k) => k.styleId))];
  return (
    <div className="p-8">
      <h1 className="text-[16px] font-semibold">
        {ids.length ? "One face is chosen. It takes two to compare." : "No faces are being compared yet."}
      </h1>
      <p className="mt-1 max-w-[60ch] text-basalt">
        On the wall, C adds the face in focus; in the tray, every kept face has a button for it. Up to{" "}
        {COMPARED_AT_MOST} faces stand beside each other.
      </p>
      <div className="mt-4 flex gap-3">
        {kept.length > 1 && (
          <button type="button" className="btn btn-act" onClick={() => comparing.put([...ids, ...kept])}>
            Compare what is kept
          </button>
        )}
        <Link className="btn" href={`/b/${brief.briefId}/find`}>
          Go to the wall
        </Link>
      </div>
    </div>
  );
}

type At = { way: Way; letter: string | null; column: number };
type ColumnsProps = { ids: readonly string[]; at: At; setAt: (change: Partial<At>) => void };

const readWidth = (element: HTMLElement) => element.clientWidth;

function Columns({ ids, at, setAt }: ColumnsProps) {
  const comparing = useComparing();
  const { faces, comparison, ranges, error } = useCompared(ids);
  const root = useRef<HTMLDivElement>(null);
  const widthPx = useMeasured(root, readWidth) ?? 0;
  const [shown, setShown] = useState<Shown>(null);
  useShown(shown, root);
  const drawn = useDrawnColumns(faces?.length ?? 0);
  const letters = comparison?.letters ?? [];
  const letter = at.letter ?? letters[0]?.char ?? "g";
  const column = Math.min(at.column, ids.length - 1);
  const remove = (face: ShownItem) => comparing.turn(face.styleId, nameOf(face));
  useCompareKeys({ faces, letters, letter, column, setAt, remove });
  useFaceFacts(faces?.[column], comparison);
  if (error && !comparison) return <FaultNote fault={writeFault(faultOf(error))} />;
  return (
    <div ref={root} className="h-full overflow-auto px-4 pt-3 pb-8" data-compare {...comparing.drop}>
      <h1 className="sr-only">Compare</h1>
      <Told comparison={comparison} onShow={setShown} />
      <WayTabs way={at.way} onWay={(way) => setAt({ way })} />
      {faces && widthPx > 0 && (
        <div
          className="grid"
          role="group"
          aria-label="Faces beside each other"
          style={{ gridTemplateColumns: columnsOf(faces.length), minWidth: LABEL_PX + faces.length * 104 }}
        >
          <div />
          {faces.map((face, c) => (
            <Head
              key={face.styleId}
              {...{ face, faces, ranges, comparison }}
              column={c}
              isFocus={c === column}
              onFocus={() => setAt({ column: c })}
              onRemove={() => remove(face)}
            />
          ))}
          <DrawnColumns value={drawn}>
            <Body {...{ faces, comparison, at, setAt, letter, widthPx }} />
          </DrawnColumns>
        </div>
      )}
    </div>
  );
}

function WayTabs({ way, onWay }: { way: Way; onWay: (way: Way) => void }) {
  const { brief } = useBench();
  return (
    <div className="mt-1 flex flex-wrap items-center gap-x-5 border-b border-rule text-[12.5px]">
      <div role="group" aria-label="Ways to look" className="flex flex-wrap gap-x-5">
        {WAYS.map((w) => (
          <button
            key={w.way}
            type="button"
            aria-pressed={way === w.way}
            onClick={() => onWay(w.way)}
            className={`-mb-px min-h-7 border-b-2 ${way === w.way ? "border-oxide font-semibold" : "border-transparent text-basalt hover:text-slate"}`}
          >
            {w.name}
          </button>
        ))}
      </div>
      <span className="ml-auto flex gap-5 font-semibold text-tide">
        <Link href={`/b/${brief.briefId}/compare/companions`}>Companions …</Link>
        <Link href={`/b/${brief.briefId}/compare/two-by-two`}>Two by two …</Link>
      </span>
    </div>
  );
}

type HeadProps = {
  face: ShownItem;
  faces: readonly ShownItem[];
  ranges: ReturnType<typeof useCompared>["ranges"];
  comparison: Comparison | undefined;
  column: number;
  isFocus: boolean;
  onFocus: () => void;
  onRemove: () => void;
};

function Head({ face, faces, ranges, comparison, column, isFocus, onFocus, onRemove }: HeadProps) {
  const { brief } = useBench();
  const name = `${face.family} ${face.style}`;
  const line = comparison?.faces[column];
  return (
    <div
      className={`min-w-0 border-l border-rule pt-2.5 pr-2 pb-2 pl-4 ${isFocus ? "shadow-[inset_0_2px_0_0_var(--tide)]" : ""}`}
      data-head={face.styleId}
      onPointerDown={onFocus}
    >
      <div className="flex items-baseline justify-between gap-2">
        <Link
          href={`/b/${brief.briefId}/style/${face.styleId}`}
          prefetch={false}
          onFocus={onFocus}
          className="min-h-6 truncate font-semibold hover:underline"
          title={name}
        >
          {name}
        </Link>
        <button
          type="button"
          className="btn-quiet"
          aria-label={`Remove ${name} from the comparison`}
          onClick={onRemove}
        >
          ×
        </button>
      </div>
      <div className="mb-2 flex min-w-0 flex-wrap items-center gap-x-3 text-[12px]">
        <VerdictMark verdict={face.verdict} price={face.price} />
        <CareMark health={face.health} compact />
        {face.missing.length > 0 && <span className="font-semibold text-madder">no {face.missing.join(" ")}</span>}
      </div>
      {Object.keys(face.axisWanted).length > 0 && (
        <p className="num truncate text-[11.5px] text-basalt" title="Set as it was kept; measured as it comes">
          {writeSetting({ location: face.axisWanted })}
        </p>
      )}
      <CoreBeside traits={face.traits} group={faces.map((f) => f.traits)} ranges={ranges} />
      {/* Its room is there before it is: nothing below moves when it comes. */}
      <p className="num mt-1.5 min-h-[1.5em] truncate text-[11.5px] text-basalt">
        {line?.lineWidthMm ? `line ${line.lineWidthMm.toFixed(0)} mm` : ""}
        {/* Where there is room for it. */}
        {line?.lineWidthEm && faces.length < 5 ? `, ${line.lineWidthEm.toFixed(2)} em` : ""}
      </p>
    </div>
  );
}

type BodyProps = ColumnsBody & { at: At; setAt: ColumnsProps["setAt"]; letter: string; widthPx: number };
type ColumnsBody = { faces: readonly ShownItem[]; comparison: Comparison | undefined };

function Body({ faces, comparison, at, setAt, letter, widthPx }: BodyProps) {
  const { brief } = useBench();
  const [active] = useActiveLine();
  const columnPx = (widthPx - 32 - LABEL_PX) / faces.length;
  const text = brief.lines[active]?.text || brief.name;
  const way: WayProps = { brief, faces, comparison, columnPx };
  const choose = (
    <LetterChoice letters={comparison?.letters ?? []} letter={letter} onLetter={(l) => setAt({ letter: l })} />
  );
  if (at.way === "figures") return <FiguresWay {...way} />;
  if (at.way === "page") return <OnPageWay {...way} />;
  if (at.way === "sizes") return <SizesWay {...way} />;
  if (at.way === "picture") return <PictureWay faces={faces} text={text} widthPx={widthPx - 32} />;
  if (at.way === "letter") return <LetterBand {...way} letter={letter} label={choose} most={420} />;
  if (at.way === "over")
    return (
      <div className="col-span-full border-t border-rule">
        <Over faces={faces} column={at.column} text={text} widthPx={widthPx} />
      </div>
    );
  return (
    <>
      <WordsWay {...way} />
      <SiblingsBand {...way} />
      <LetterBand {...way} letter={letter} label={choose} most={130} />
    </>
  );
}

/** The face in focus is laid over the first, until other two are chosen. */
function Over({ column, ...props }: { faces: readonly ShownItem[]; column: number; text: string; widthPx: number }) {
  const { brief } = useBench();
  const [pair, setPair] = useState<[number, number]>(column > 0 ? [0, column] : [0, 1]);
  return <LaidOver brief={brief} pair={pair} onPair={setPair} {...props} />;
}

const LETTERS_SHOWN = 9;
function LetterChoice({
  letters,
  letter,
  onLetter,
}: {
  letters: Comparison["letters"];
  letter: string;
  onLetter: (letter: string) => void;
}) {
  return (
    <div role="group" aria-label="Letters that tell the faces apart, the most telling first">
      <p>tells most</p>
      <div className="mt-1 flex flex-wrap">
        {letters.slice(0, LETTERS_SHOWN).map(({ char, difference }) => (
          <button
            key={char}
            type="button"
            aria-pressed={char === letter}
            title={`${Math.round(100 * difference)} % of the ink differs`}
            onClick={() => onLetter(char)}
            className={`grid h-6 w-6 place-items-center text-[14px] ${char === letter ? "bg-slate font-bold text-chalk" : "hover:underline"}`}
          >
            {char}
          </button>
        ))}
      </div>
      <input
        aria-label="Another letter"
        placeholder="other"
        maxLength={2}
        className="mt-1 h-6 w-12 border-b border-rule bg-transparent text-[12px]"
        onChange={(event) => {
          const [first] = [...event.target.value.trim()];
          if (first) onLetter(first);
        }}
      />
    </div>
  );
}

function useCompareKeys(p: {
  faces: readonly ShownItem[] | undefined;
  letters: Comparison["letters"];
  letter: string;
  column: number;
  setAt: ColumnsProps["setAt"];
  remove: (face: ShownItem) => void;
}) {
  const { faces, letters, letter, column, setAt, remove } = p;
  const { keep, brief } = useBench();
  const to = (next: number) => setAt({ column: Math.max(0, Math.min((faces?.length ?? 1) - 1, next)) });
  const face = faces?.[column];
  useKeys("Compare", [
    { keys: ["ArrowLeft"], legend: "face", shown: "← →", run: () => to(column - 1) },
    { keys: ["ArrowRight"], legend: "face to the right", isLesser: true, run: () => to(column + 1) },
    {
      keys: ["l"],
      legend: "letter",
      run: () => {
        const next = letters[(letters.findIndex((l) => l.char === letter) + 1) % Math.max(1, letters.length)];
        if (next) setAt({ letter: next.char });
      },
    },
    { keys: ["o"], legend: "lay over", run: () => setAt({ way: "over" }) },
    { keys: ["w"], legend: "words", isLesser: true, run: () => setAt({ way: "words" }) },
    {
      keys: [" "],
      legend: "keep",
      run: () => {
        const isKept = face && brief.kept.some((k) => k.styleId === face.styleId);
        if (face && !isKept) keep(face.styleId, `${face.family} ${face.style}`, {});
      },
    },
    { keys: ["Backspace", "Delete"], legend: "remove", run: () => face && remove(face) },
  ]);
}

function useFaceFacts(face: ShownItem | undefined, comparison: Comparison | undefined) {
  const { dispatch } = useBench();
  useEffect(() => {
    if (!face) return;
    const { stemEm, widthEm } = face.traits;
    const line = comparison?.faces.find((f) => f.styleId === face.styleId);
    dispatch({
      type: "facts",
      facts: [
        `${face.family} ${face.style}`,
        ...(stemEm ? [`stem ${stemEm.toFixed(3)} em`] : []),
        ...(widthEm ? [`width ${widthEm.toFixed(2)} em`] : []),
        ...(line ? [line.missing.length ? `lacks ${line.missing.join(" ")}` : "all characters"] : []),
      ],
    });
  }, [dispatch, face, comparison]);
}
