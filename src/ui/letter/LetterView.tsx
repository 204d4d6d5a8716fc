"use client";
// Letter: the brief's lines as they are printed and cut. Four ways in working order over the sheet (LetterHead); under it the chosen line
// letter by letter.
import Link from "next/link";
import { useQuery } from "@tanstack/react-query";
import { parseAsInteger, parseAsString, parseAsStringLiteral, useQueryState, useQueryStates } from "nuqs";
import { useEffect, useMemo, useRef, useState } from "react";
import type { Kept } from "@/contracts/brief";
import type { Block, Finding, Lettering, LetteringDocument } from "@/contracts/lettering";
import type { Bounds } from "@/core/geometry/outline";
import { convertLength, type LengthUnit } from "@/contracts/units";
import { keepTogether, replaceBlock } from "@/core/letter/editBlock";
import { marginFor } from "@/core/letter/fitSheet";
import { startLettering } from "@/core/letter/startLettering";
import { useBench } from "../bench/BenchContext";
import { useOfferDressing } from "../bench/dressing";
import { useKeys } from "../bench/useKeys";
import { writeFault } from "../messages";
import { faultOf, queryOf, useChange } from "../parts/client";
import { FaultNote } from "../parts/FaultNote";
import { CheckPanel, useCheck, useMaterial } from "./CheckPanel";
import { letterInWorker } from "./letterInWorker";
import type { LaidBlock } from "./letterTasks";
import { Letterings } from "./Letterings";
import { LineTabs, Told, WAYS, WayTabs, type Way } from "./LetterHead";
import { MoveView } from "./move/MoveView";
import { LetterStrip } from "./LetterStrip";
import { PlotStage } from "./PlotStage";
import { SavePanel, useSending, type Sending } from "./SavePanel";
import { dress, SetBar } from "./SetBar";
import { ShapeBar } from "./ShapeBar";
import { Sheet, type Chosen } from "./Sheet";
import { useForms, useLaid } from "./useLaid";
import { useLettering, type Editing } from "./useLettering";

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
  const [wanted, setWanted] = useQueryState("of", parseAsString);
  const all = list.data?.letterings ?? [];
  const first = all.find((l) => l.letteringId === wanted) ?? all[0] ?? opened;
  if (list.error && !first) return <FaultNote fault={writeFault(faultOf(list.error))} />;
  if (list.isPending) return <p className="p-8 text-basalt">Opening the lettering …</p>;
  if (!first) return <Begin onBegun={setOpened} />;
  return (
    <Work key={first.letteringId} first={first} all={all.length ? all : [first]} onOpen={(id) => void setWanted(id)} />
  );
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

type WorkProps = { first: Lettering; all: readonly Lettering[]; onOpen: (letteringId: string) => void };

function Work({ first, all, onOpen }: WorkProps) {
  const work = useAtWork(first);
  const { editing, laid, block, letter, way, isHere, choose, turn } = work;
  const { document, change } = editing;
  const choice = useMaterial();
  const check = useCheck(document, choice.material, way === "check");
  const sending = useSending();
  const findings = way === "check" ? (check.data?.findings ?? []) : [];
  useWearing(document, block, work.changeBlock);
  useLetterKeys(editing, turn);
  useLetterFacts(block, letter?.text ?? null, work.laidBlock?.emMm ?? 0);
  return (
    <div className="flex h-full min-h-0 flex-col overflow-y-auto px-4 pt-2 pb-3" data-lettering={first.letteringId}>
      <h1 className="sr-only">Letter</h1>
      <WayTabs {...{ way, editing }} found={findings.length} onWay={turn}>
        <Letterings {...{ all, document, onOpen }} open={first} isBusy={editing.unsaved > 0} />
      </WayTabs>
      <Told editing={editing} laid={laid} blocks={document.blocks} />
      <LineTabs
        blocks={laid.blocks}
        {...{ document, change, isHere }}
        chosenId={block?.id ?? null}
        onChoose={(blockId) => choose({ blockId, at: null })}
      />
      <fieldset disabled={!isHere} className="contents">
        {way === "move" ? (
          <MoveView
            {...{ document, block }}
            fonts={work.fonts}
            blocks={laid.blocks}
            onChoose={(blockId) => choose({ blockId, at: null })}
            onPreview={editing.preview}
            onChange={change}
          />
        ) : (
          <div className="flex min-h-[300px] flex-1">
            <Stage {...{ work, findings, sending }} />
          </div>
        )}
        {way === "check" && <CheckPanel {...{ document, choice, check }} onGo={work.go} onChange={change} />}
        {way === "save" && <SavePanel {...{ document, sending }} name={first.name} onChange={change} />}
        {block && <Bars {...{ work, block }} />}
      </fieldset>
    </div>
  );
}

/** One lettering at work: what is chosen of it, how it lies on the sheet, and what is looked at closely. */
function useAtWork(first: Lettering) {
  const [at, setAt] = useQueryStates(address, { history: "replace" });
  const editing = useLettering(first);
  const { document, change } = editing;
  const [showsPoints, setShowsPoints] = useState(false);
  const [closeUp, setCloseUp] = useState<Bounds | null>(null);
  const block = document.blocks.find((b) => b.id === at.line) ?? document.blocks[0] ?? null;
  const chosen: Chosen | null = block && { blockId: block.id, at: at.letter };
  const { laid, fonts } = useLaid(document, showsPoints ? chosen : null);
  const laidBlock = laid.blocks.find((b) => b.id === block?.id);
  const letter = laidBlock?.letters.find((l) => l.at === at.letter);
  const drawing = useDrawing(block, (next) => change(replaceBlock(document, next)));
  const choose = (next: Chosen) => {
    void setAt({ line: next.blockId, letter: next.at });
    if (showsPoints) setCloseUp(aroundLetter(laid.blocks, next));
  };
  return {
    ...{ editing, laid, fonts, block, laidBlock, chosen, letter, showsPoints, closeUp, choose },
    way: at.way,
    isHere: editing.holding === "here" && !editing.clash,
    changeBlock: (next: Block) => change(replaceBlock(document, next)),
    previewBlock: (next: Block | null) => editing.preview(next && replaceBlock(document, next)),
    showWhole: () => setCloseUp(null),
    showPoints: (isOn: boolean) => {
      setShowsPoints(isOn);
      setCloseUp(isOn && chosen ? aroundLetter(laid.blocks, chosen) : null);
    },
    /** To where something was found. */
    go: (finding: Finding) => {
      choose({ blockId: finding.blockId, at: finding.letters[0] ?? null });
      setCloseUp(aroundPlace(finding, laid.blocks.find((b) => b.id === finding.blockId)?.emMm ?? 0));
    },
    turn: (way: Way) => {
      setCloseUp(null);
      setShowsPoints(false);
      drawing.setDrawing(false);
      void setAt({ way });
    },
    ...drawing,
  };
}
type AtWork = ReturnType<typeof useAtWork>;

/** A stroke of the hand as the curve that a line lies on. */
function useDrawing(block: Block | null, onChange: (block: Block) => void) {
  const [isDrawing, setDrawing] = useState(false);
  const draw = async (points: number[]) => {
    const { d } = await letterInWorker({ what: "smooth", points });
    if (!d || !block) return;
    setDrawing(false);
    const { turnDeg: _, ...rest } = block;
    const tenth = (v: number) => Math.round(v * 10) / 10;
    const at = { xMm: tenth(points[0]!), yMm: tenth(points[1]!) };
    onChange({ ...rest, align: "left", at, path: { kind: "drawn", d } });
  };
  return { isDrawing, setDrawing, draw };
}

type StageProps = { work: AtWork; findings: readonly Finding[]; sending: Sending };

/** The sheet, or what the plotter says of it. */
function Stage({ work, findings, sending }: StageProps) {
  const { brief } = useBench();
  const { editing, laid, chosen, way, isHere, isDrawing, closeUp } = work;
  const { document, change } = editing;
  if (way === "save" && sending.sent) return <Sent {...{ document, change, sending }} unit={brief.unit} />;
  return (
    <Sheet
      {...{ document, chosen, findings, closeUp }}
      blocks={laid.blocks}
      way={isHere ? way : "save"}
      onChoose={work.choose}
      onPreview={editing.preview}
      onChange={change}
      onStroke={way === "set" && isDrawing ? (points) => void work.draw(points) : null}
      onWhole={work.showWhole}
      marginMm={marginFor(Math.max(document.sheet.widthMm, document.sheet.heightMm))}
      paper={brief.paper}
      unit={brief.unit}
    />
  );
}

/** What the chosen line, or a letter of it, is set and shaped by. */
function Bars({ work, block }: { work: AtWork; block: Block }) {
  const { laidBlock, fonts, letter, chosen, way, isDrawing, setDrawing, showsPoints, choose, changeBlock } = work;
  const forms = useForms(block, letter?.text ?? null, fonts);
  const at = chosen?.at ?? null;
  if (way !== "set" && way !== "shape") return null;
  return (
    <>
      {way === "set" ? (
        <SetBar
          {...{ block, isDrawing }}
          laid={laidBlock}
          onDraw={setDrawing}
          onPreview={work.previewBlock}
          onChange={changeBlock}
        />
      ) : (
        <ShapeBar {...{ block, showsPoints, at }} laid={laidBlock} onChange={changeBlock} onPoints={work.showPoints} />
      )}
      {laidBlock && (
        <LetterStrip
          {...{ block, forms, at }}
          laid={laidBlock}
          onChoose={(letterAt) => choose({ blockId: block.id, at: letterAt })}
          onChange={changeBlock}
        />
      )}
    </>
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

/** So much around what is looked at closely, in parts of it. */
const AROUND = 0.25;
function aroundLetter(blocks: readonly LaidBlock[], { blockId, at }: Chosen): Bounds | null {
  const box = blocks.find((b) => b.id === blockId)?.letters.find((l) => l.at === at)?.box;
  if (!box) return null;
  const by = AROUND * Math.max(box.xMax - box.xMin, box.yMax - box.yMin);
  return { xMin: box.xMin - by, yMin: box.yMin - by, xMax: box.xMax + by, yMax: box.yMax + by };
}
const LEAST_AROUND_MM = 10;
function aroundPlace({ xMm, yMm }: Finding, emMm: number): Bounds {
  const by = Math.max(LEAST_AROUND_MM, emMm);
  return { xMin: xMm - by, yMin: yMm - by / 2, xMax: xMm + by, yMax: yMm + by / 2 };
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
    { keys: ["m"], legend: "move", isLesser: true, run: () => setWay("move") },
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
