"use client";
// Letter: the brief's lines as they are printed and cut. Four ways in working order over the sheet: Set, Shape, Check, Save as; under it the
// chosen line letter by letter.
import Link from "next/link";
import { useQuery } from "@tanstack/react-query";
import { parseAsInteger, parseAsString, parseAsStringLiteral, useQueryStates } from "nuqs";
import { useEffect, useMemo, useRef, useState } from "react";
import type { Kept } from "@/contracts/brief";
import type { Block, Finding, Lettering, LetteringDocument } from "@/contracts/lettering";
import { convertLength, type LengthUnit } from "@/contracts/units";
import { editText, keepTogether, replaceBlock } from "@/core/letter/editBlock";
import { startLettering } from "@/core/letter/startLettering";
import { useBench } from "../bench/BenchContext";
import { useOfferDressing } from "../bench/dressing";
import { useKeys } from "../bench/useKeys";
import { writeFault } from "../messages";
import { faultOf, queryOf, useChange } from "../parts/client";
import { FaultNote } from "../parts/FaultNote";
import { CheckPanel, useCheck, useMaterial } from "./CheckPanel";
import type { LaidBlock } from "./letterTasks";
import { LetterStrip } from "./LetterStrip";
import { PlotStage } from "./PlotStage";
import { SavePanel, useSending, type Sending } from "./SavePanel";
import { dress, SetBar } from "./SetBar";
import { ShapeBar } from "./ShapeBar";
import { Sheet, type Chosen } from "./Sheet";
import { SheetSize } from "./SheetSize";
import { useForms, useLaid, type LaidOut } from "./useLaid";
import { useLettering, type Editing } from "./useLettering";

const WAYS = [
  { way: "set", name: "Set" },
  { way: "shape", name: "Shape" },
  { way: "check", name: "Check" },
  { way: "save", name: "Save as" },
] as const;
type Way = (typeof WAYS)[number]["way"];
const address = {
  way: parseAsStringLiteral(WAYS.map((w) => w.way)).withDefault("set"),
  line: parseAsString,
  letter: parseAsInteger,
};

export function LetterView() {
  const { brief } = useBench();
  const list = useQuery(queryOf("listLetterings", { params: { id: brief.briefId } }));
  // Opened once: what is saved afterwards is known here first.
  const [opened, setOpened] = useState<Lettering | null>(null);
  const first = opened ?? list.data?.letterings[0] ?? null;
  if (list.error && !first) return <FaultNote fault={writeFault(faultOf(list.error))} />;
  if (list.isPending) return <p className="p-8 text-basalt">Opening the lettering …</p>;
  if (!first) return <Begin onBegun={setOpened} />;
  return <Work key={first.letteringId} first={first} />;
}

/** Nothing is lettered yet: what it takes, and the button that begins. */
function Begin({ onBegun }: { onBegun: (lettering: Lettering) => void }) {
  const { brief, sayFault } = useBench();
  const change = useChange();
  const [kept] = brief.kept;
  const hasWords = brief.lines.some((l) => l.text.trim());
  const begin = async () => {
    const { styleId, location, features } = kept!;
    const lines = brief.lines.map((l, i) => ({ id: l.id ?? `l_${i}`, text: l.text, role: l.role }));
    const face = { styleId, coordinates: location, features };
    const sizeMm = convertLength(brief.size, brief.unit, "mm");
    const look = { sizeMm, isByCapitals: brief.levelBy === "capitals", ink: brief.ink };
    const document = startLettering(lines, face, look);
    try {
      onBegun(await change("createLettering", { params: { id: brief.briefId }, body: { name: brief.name, document } }));
    } catch (error) {
      sayFault(error);
    }
  };
  return (
    <div className="p-8">
      <h1 className="text-[16px] font-semibold">Nothing is lettered yet.</h1>
      <p className="mt-1 max-w-[60ch] text-basalt">
        {!hasWords
          ? "The lines of the brief are what is lettered. Write one first."
          : kept
            ? "The lines of the brief are set in the first kept face at the brief’s final size. Every line can have a face of its own afterwards."
            : "Letters are set in a face that is kept. On the wall, Space keeps the face in focus."}
      </p>
      <div className="mt-4 flex gap-3">
        {kept && hasWords ? (
          <button type="button" className="btn btn-act" onClick={() => void begin()}>
            Start lettering
          </button>
        ) : (
          <Link className="btn btn-act" href={`/b/${brief.briefId}/${hasWords ? "find" : "brief"}`}>
            {hasWords ? "Go to the wall" : "Go to the brief"}
          </Link>
        )}
      </div>
    </div>
  );
}

function Work({ first }: { first: Lettering }) {
  const { brief } = useBench();
  const [at, setAt] = useQueryStates(address, { history: "replace" });
  const editing = useLettering(first);
  const { document, change } = editing;
  const { laid, fonts } = useLaid(document);
  const choice = useMaterial();
  const check = useCheck(document, choice.material, at.way === "check");
  const sending = useSending();
  const block = document.blocks.find((b) => b.id === at.line) ?? document.blocks[0] ?? null;
  const laidBlock = laid.blocks.find((b) => b.id === block?.id);
  const chosen: Chosen | null = block && { blockId: block.id, at: at.letter };
  const letter = laidBlock?.letters.find((l) => l.at === at.letter);
  const forms = useForms(block, letter?.text ?? null, fonts);
  const choose = ({ blockId, at: letterAt }: Chosen) => void setAt({ line: blockId, letter: letterAt });
  const changeBlock = (next: Block) => change(replaceBlock(document, next));
  useWearing(document, block, changeBlock);
  const go = ({ blockId, letters }: Finding) => choose({ blockId, at: letters[0] ?? null });
  useLetterKeys(editing, (way) => void setAt({ way }));
  useLetterFacts(block, letter?.text ?? null, laidBlock?.emMm ?? 0);
  const isHere = editing.holding === "here" && !editing.clash;
  return (
    <div className="flex h-full min-h-0 flex-col overflow-y-auto px-4 pt-2 pb-3" data-lettering={first.letteringId}>
      <h1 className="sr-only">Letter</h1>
      <WayTabs
        way={at.way}
        editing={editing}
        found={at.way === "check" ? check.data?.findings.length : undefined}
        onWay={(way) => void setAt({ way })}
      />
      <Told editing={editing} laid={laid} blocks={document.blocks} />
      <LineTabs
        blocks={laid.blocks}
        {...{ document, change, isHere }}
        chosenId={block?.id ?? null}
        onChoose={(line) => void setAt({ line, letter: null })}
      />
      <fieldset disabled={!isHere} className="contents">
        <div className="flex min-h-[300px] flex-1">
          {at.way === "save" && sending.sent ? (
            <Sent {...{ document, change, sending }} unit={brief.unit} />
          ) : (
            <Sheet
              {...{ document, chosen }}
              blocks={laid.blocks}
              way={isHere ? at.way : "save"}
              onChoose={choose}
              onPreview={editing.preview}
              onChange={change}
              findings={at.way === "check" ? (check.data?.findings ?? []) : []}
              paper={brief.paper}
              unit={brief.unit}
            />
          )}
        </div>
        {block && at.way === "set" && <SetBar {...{ block }} laid={laidBlock} onChange={changeBlock} />}
        {block && at.way === "shape" && (
          <ShapeBar {...{ block }} laid={laidBlock} at={at.letter} onChange={changeBlock} />
        )}
        {at.way === "check" && <CheckPanel {...{ document, choice, check }} onGo={go} onChange={change} />}
        {at.way === "save" && <SavePanel {...{ document, sending }} name={first.name} />}
        {block && laidBlock && (at.way === "set" || at.way === "shape") && (
          <LetterStrip
            {...{ block, forms }}
            laid={laidBlock}
            at={at.letter}
            onChoose={(l) => void setAt({ letter: l })}
            onChange={changeBlock}
          />
        )}
      </fieldset>
    </div>
  );
}

type SentProps = Pick<Editing, "document" | "change"> & { sending: Sending; unit: LengthUnit };

/** What the plotter says of the file; pieces that it would pack are kept together by one button. */
function Sent({ document, change, sending: { sent, send, close }, unit }: SentProps) {
  const isTogether = document.blocks.every((b) => b.keepTogether !== undefined);
  const keep = () => {
    const kept = keepTogether(document);
    change(kept);
    void send(kept, sent!.format);
  };
  return (
    <PlotStage
      key={sent!.plot.plotId}
      plot={sent!.plot}
      unit={unit}
      onKeepTogether={isTogether ? null : keep}
      onClose={close}
    />
  );
}

/** The tray's faces dress the chosen line. */
function useWearing(document: LetteringDocument, block: Block | null, changeBlock: (block: Block) => void) {
  const put = useRef(changeBlock);
  useEffect(() => {
    put.current = changeBlock;
  });
  const dressing = useMemo(
    () =>
      block && {
        wear: (entry: Kept) => put.current(dress(block, entry)),
        wornBy: ({ styleId }: Kept) =>
          document.blocks
            .flatMap((b, i) => (b.styleId === styleId ? [`line ${i + 1}`] : []))
            .slice(0, 2)
            .join(", "),
      },
    [document, block],
  );
  useOfferDressing(dressing);
}

type TabsProps = { way: Way; editing: Editing; found: number | undefined; onWay: (way: Way) => void };

function WayTabs({ way, editing, found, onWay }: TabsProps) {
  const { unsaved, isFailing, retry, stepsBack } = editing;
  const steps = stepsBack === 1 ? "1 step back" : `${stepsBack} steps back`;
  return (
    <div className="flex items-end justify-between border-b-2 border-slate">
      <div role="group" aria-label="Ways of working" className="flex gap-6">
        {WAYS.map((w) => (
          <button
            key={w.way}
            type="button"
            aria-pressed={way === w.way}
            onClick={() => onWay(w.way)}
            className={`-mb-0.5 min-w-6 border-b-[3px] pb-1.5 text-[15px] font-semibold ${way === w.way ? "border-oxide" : "border-transparent text-basalt"}`}
          >
            {w.name}
            {w.way === "check" && found ? <span className="num ml-1.5 text-ochre">{found}</span> : null}
          </button>
        ))}
      </div>
      <span className="flex items-baseline gap-2 pb-1.5 text-[12px] text-basalt">
        <span role="status" data-saved={unsaved === 0 && !isFailing}>
          {unsaved ? "saving …" : isFailing ? "not saved" : "saved"} · {steps}
        </span>
        {isFailing && !unsaved && (
          <button type="button" className="btn-quiet underline" onClick={retry}>
            Save again
          </button>
        )}
      </span>
    </div>
  );
}

const LAYOUT_FAULTS = {
  "path-crosses": "crosses itself, so letters would lie on one another. The line is shown as it was before.",
  "path-unread": "cannot be read. The line is shown as it was before.",
  "no-size": "has no letter to measure its size by. Set the size by em instead.",
  "face-unread": "cannot be drawn: the face breaks what reads it.",
} as const;

/** What stands in the way: another tab, a clash, a path, characters that are missing. */
function Told({ editing, laid, blocks }: { editing: Editing; laid: LaidOut; blocks: readonly Block[] }) {
  const notes: { key: string; text: string; deeds?: [string, () => void][] }[] = [];
  if (editing.clash)
    notes.push({
      key: "clash",
      text: "This lettering was changed elsewhere meanwhile. Nothing of either is lost: choose which goes on.",
      deeds: [
        ["Go on with mine", () => editing.settle("mine")],
        ["Go on with theirs", () => editing.settle("theirs")],
      ],
    });
  else if (editing.holding === "elsewhere")
    notes.push({
      key: "held",
      text: "This lettering is open in another tab, which is the one that changes it.",
      deeds: [["Work here instead", editing.takeOver]],
    });
  if (laid.isUnreached)
    notes.push({ key: "font", text: "A font could not be fetched. It is tried again with the next change." });
  if (laid.fault) {
    const text = blocks.find((b) => b.id === laid.fault!.blockId)?.text ?? "";
    const isPath = laid.fault.code.startsWith("path");
    notes.push({
      key: "fault",
      text: `${isPath ? `The curve of “${text}”` : `The face of “${text}”`} ${LAYOUT_FAULTS[laid.fault.code]}`,
    });
  }
  const lacking = laid.blocks.filter((b) => b.missing.length);
  for (const { id, missing } of lacking)
    notes.push({
      key: `missing ${id}`,
      text: `The face of “${blocks.find((b) => b.id === id)?.text ?? ""}” has no ${missing.join(" ")}. Choose another face, or other words.`,
    });
  return notes.map(({ key, text, deeds }) => (
    <p
      key={key}
      role="alert"
      className="mt-2 flex flex-wrap items-center gap-3 border-l-[3px] border-ochre bg-chalk px-3 py-1.5"
      data-note={key}
    >
      {text}
      {deeds?.map(([name, onDo]) => (
        <button key={name} type="button" className="btn" onClick={onDo}>
          {name}
        </button>
      ))}
    </p>
  ));
}

type LinesProps = {
  document: LetteringDocument;
  blocks: readonly LaidBlock[];
  chosenId: string | null;
  isHere: boolean;
  onChoose: (id: string) => void;
  change: (document: LetteringDocument) => void;
};

/** The lines as blocks: one is chosen; words that the brief has changed since are taken over by a button. */
function LineTabs({ document, blocks, chosenId, isHere, onChoose, change }: LinesProps) {
  const { brief } = useBench();
  const block = document.blocks.find((b) => b.id === chosenId);
  const own = brief.lines.find((l) => l.id === chosenId);
  const others = brief.lines.filter((l) => l.id && l.text.trim() && !document.blocks.some((b) => b.id === l.id));
  const add = (line: (typeof others)[number]) => {
    const last = document.blocks[document.blocks.length - 1];
    if (!last) return;
    const { path: _, letters: __, pairs: ___, bridges: ____, ...look } = last;
    const at = { xMm: last.at.xMm, yMm: Math.round(last.at.yMm + document.sheet.heightMm / 6) };
    change({ ...document, blocks: [...document.blocks, { ...look, id: line.id!, text: line.text, at }] });
  };
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1 py-2 text-[12.5px]">
      <div role="group" aria-label="Lines" className="flex flex-wrap gap-x-4">
        {document.blocks.map((b) => (
          <button
            key={b.id}
            type="button"
            aria-pressed={b.id === chosenId}
            onClick={() => onChoose(b.id)}
            className={`border-b-2 ${b.id === chosenId ? "border-oxide font-semibold" : "border-transparent text-basalt"}`}
          >
            {b.text.replace(/\s+/g, " ") || "empty line"}
          </button>
        ))}
      </div>
      {isHere && block && own && own.text !== block.text && (
        <button
          type="button"
          className="btn-quiet underline"
          onClick={() => change(replaceBlock(document, editText(block, own.text)))}
        >
          Use the brief’s words: {own.text}
        </button>
      )}
      {isHere &&
        others.map((line) => (
          <button key={line.id} type="button" className="btn-quiet underline" onClick={() => add(line)}>
            Add “{line.text}”
          </button>
        ))}
      {isHere && <SheetSize {...{ document, blocks, change }} />}
    </div>
  );
}

function useLetterKeys({ undo, redo, stepsBack, stepsForward, holding }: Editing, setWay: (way: Way) => void) {
  const isHere = holding === "here";
  const stepBack = () => isHere && stepsBack > 0 && undo();
  const stepOn = () => isHere && stepsForward > 0 && redo();
  useKeys("Letter", [
    { keys: ["u"], shift: false, legend: "undo", run: () => void stepBack() },
    { keys: ["z"], mod: true, shift: false, run: () => void stepBack() },
    { keys: ["u"], shift: true, legend: "redo", isLesser: true, run: () => void stepOn() },
    { keys: ["z"], mod: true, shift: true, run: () => void stepOn() },
    { keys: ["y"], mod: true, run: () => void stepOn() },
    { keys: ["s"], legend: "set", isLesser: true, run: () => setWay("set") },
    { keys: ["h"], legend: "shape", isLesser: true, run: () => setWay("shape") },
    { keys: ["k"], legend: "check", isLesser: true, run: () => setWay("check") },
  ]);
}

/** What is under focus, for the foot line. */
function useLetterFacts(block: Block | null, text: string | null, emMm: number) {
  const { dispatch } = useBench();
  const at = text === null || !block ? "" : `“${text}” in “${block.text}”`;
  const pairs = block?.pairs?.length ?? 0;
  useEffect(() => {
    const facts = [
      at,
      emMm ? `em ${emMm.toFixed(1)} mm` : "",
      pairs ? `${pairs} kerned ${pairs === 1 ? "pair" : "pairs"}` : "",
    ];
    dispatch({ type: "facts", facts: facts.filter(Boolean) });
    return () => dispatch({ type: "facts", facts: [] });
  }, [dispatch, at, emMm, pairs]);
}
