"use client";
// One picture that is being identified: framed, read and corrected on the left, the answer on the right. Several may be open at once.
import { useEffect, useReducer, useState } from "react";
import type { HandInk, IdentifyMatch } from "@/contracts/identify";
import { useBench } from "../bench/BenchContext";
import { FaultNote } from "../parts/FaultNote";
import { Answer } from "./Answer";
import { useAsking, type AskAbout, type AskMore, type Tell } from "./asking";
import type { OpenCase } from "./cases";
import { Chooser, DropArea } from "./DropArea";
import { Framing } from "./Framing";
import { applyTool, type InkTool } from "./ink";
import { InkBar } from "./InkBar";
import { lineAt } from "./layout";
import { LayoutAnswer } from "./LayoutAnswer";
import {
  baselineOf,
  cornersOf,
  identifyReducer,
  NOTHING,
  selectMatches,
  shapeOf,
  type IdentifyAction,
  type IdentifyState,
  type Picture,
  type Progress,
} from "./state";
import { snapshotOf, type CaseSnapshot } from "./openCases";
import { Strip } from "./Strip";
import { useKeepIdentification } from "./kept";

function beginWith({ saved, left }: OpenCase): IdentifyState {
  if (left) return { ...NOTHING, ...left };
  if (!saved) return NOTHING;
  const { text, isTyped, result, ...shape } = saved.state;
  const answered = { ...shapeOf(shape), text, isTyped };
  return { ...NOTHING, ...answered, result, areas: result.areas, savedAs: saved.identificationId, answered };
}

type Props = {
  open: OpenCase;
  isShown: boolean;
  onFiles: (files: File[]) => void;
  /** What there is to be found again after a reload. */
  onLeft: (key: string, snapshot: CaseSnapshot) => void;
};

export function PictureCase({ open, isShown, onFiles, onLeft }: Props) {
  const [state, dispatch] = useReducer(identifyReducer, open, beginWith);
  const { brief } = useBench();
  const { picture } = state;
  const { askAbout, askAll, giveUp } = useAsking(dispatch);
  const { file } = open;
  useChosenPicture(file, Boolean(open.saved ?? open.left?.result), dispatch, askAbout);
  useEffect(() => {
    if (state.picture) onLeft(open.key, snapshotOf(state));
  }, [state, onLeft, open.key]);
  const match = selectMatches(state)[state.focus];
  useMatchFacts(match, isShown);
  const keeping = useKeepIdentification(state, brief.briefId, (id) => dispatch({ type: "kept", id }));
  if (!picture) return <p className="p-6 text-basalt">Opening {file.name} …</p>;
  const compare = (words: string, more?: AskMore) => void askAbout(picture, shapeOf(state), words, more);
  return (
    <div className="grid h-full grid-cols-[minmax(0,1.36fr)_minmax(0,1fr)]" hidden={!isShown} data-case={file.name}>
      <DropArea onFiles={onFiles} className="flex min-h-0 flex-col gap-3 overflow-y-auto px-4 py-3">
        <Marked
          state={state}
          picture={picture}
          dispatch={dispatch}
          askAbout={askAbout}
          onAll={() => void askAll(picture)}
        />
        <Tools state={state} picture={picture} dispatch={dispatch} onFiles={onFiles} onCompare={compare} />
        {state.fault && <FaultNote fault={state.fault} />}
        <ReadAs id={open.key} state={state} dispatch={dispatch} onCompare={compare} />
        <Line state={state} dispatch={dispatch} onCompare={compare} />
      </DropArea>
      {state.layout && state.isLayoutShown ? (
        <LayoutAnswer
          layout={state.layout}
          busy={state.busy}
          onLine={(at) => dispatch({ type: "line chosen", at })}
          onGiveUp={giveUp}
        />
      ) : (
        <Answer
          state={state}
          dispatch={dispatch}
          isShown={isShown}
          onTry={(styleId) => compare(state.text || state.result?.reading.text || "", { styleId })}
          onCorners={() => dispatch({ type: "corners", corners: cornersOf(picture, state.frame) })}
          onGiveUp={giveUp}
          keeping={keeping}
        />
      )}
    </div>
  );
}

type MarkedProps = {
  state: IdentifyState;
  picture: Picture;
  dispatch: Tell;
  askAbout: AskAbout;
  /** Asks about every line of the picture at once. */
  onAll: () => void;
};

/** The picture, framed, and what in it is lettering. */
function Marked({ state, picture, dispatch, askAbout, onAll }: MarkedProps) {
  const { frame, corners, baseline, ink } = state;
  const [tool, setTool] = useState<InkTool | null>(null);
  const [brush, setBrush] = useState(4);
  const radiusPx = Math.max(1, (brush * (frame?.height ?? picture.heightPx)) / BRUSH_STEPS);
  /** Each correction is answered at once. */
  const correct = (next: HandInk | null, action: IdentifyAction) => {
    dispatch(action);
    void askAbout(picture, { ...shapeOf(state), ink: next }, state.isTyped ? state.text : "");
  };
  const mark = (next: HandInk | null) => correct(next, { type: "inked", ink: next });
  return (
    <>
      <Framing
        picture={picture}
        frame={frame}
        corners={corners}
        baseline={baseline}
        areas={state.areas}
        ink={ink}
        tool={tool}
        brushPx={radiusPx}
        caption={<AboutPicture state={state} picture={picture} onAll={onAll} />}
        onTool={(points) => mark(applyTool(ink, tool!, points, radiusPx))}
        onFrame={(f) => dispatch({ type: "framed", frame: f })}
        onCorners={(c) => dispatch({ type: "corners", corners: c })}
        onBaseline={(b) => dispatch({ type: "baseline", baseline: b })}
        onArea={(area) => {
          const at = lineAt(state.layout, area);
          if (state.layout?.lines[at]) return dispatch({ type: "line chosen", at });
          dispatch({ type: "framed", frame: area });
          dispatch({ type: "typed", text: "" });
          // Its colours are another line's.
          if (ink) dispatch({ type: "inked", ink: null });
          void askAbout(picture, { frame: area }, "");
        }}
      />
      <InkBar
        ink={ink}
        tool={tool}
        brush={brush}
        canUndo={state.inkBefore.length > 0}
        onInk={mark}
        onTool={setTool}
        onBrush={setBrush}
        onUndo={() => correct(state.inkBefore.at(-1) ?? null, { type: "ink undone" })}
      />
    </>
  );
}
/** The brush has ten sizes; its radius is so many of these steps of the frame's height. */
const BRUSH_STEPS = 40;

/** The line that is compared: as it is seen while it is, then with the face laid over it. */
function Line({ state, dispatch, onCompare }: { state: IdentifyState; dispatch: Tell; onCompare: Compare }) {
  const { progress, result, focus } = state;
  const match = selectMatches(state)[focus];
  if (progress?.seen) return <Seen strip={progress.seen} />;
  if (!result || !match) return null;
  return (
    <Strip
      key={state.asks}
      result={result}
      match={match}
      lay={state.lay}
      busy={state.busy}
      onLay={(lay) => dispatch({ type: "laid", lay })}
      onCut={(cut, letters) => {
        dispatch({ type: "typed", text: letters });
        onCompare(letters, { cut });
      }}
    />
  );
}

/** What is taken for ink, while it is compared. */
const Seen = ({ strip }: { strip: NonNullable<Progress["seen"]> }) => (
  <section aria-label="The ink that is compared">
    {/* oxlint-disable-next-line nextjs/no-img-element -- a picture of the answer's, in itself */}
    <img src={strip.png} alt="" className="block max-h-[190px] w-full bg-[#fbf9f4] object-contain" />
    <p className="mt-1 text-basalt">This is what’s being compared. If it isn’t your lettering, correct it above.</p>
  </section>
);

type Compare = (words: string, more?: AskMore) => void;

/** Opens the file; one that was not answered before is asked about at once. */
function useChosenPicture(file: File, isOpenedAgain: boolean, dispatch: Tell, askAbout: AskAbout) {
  useEffect(() => {
    const url = URL.createObjectURL(file);
    const image = new Image();
    const take = (widthPx: number, heightPx: number) => {
      const chosen = { file, url, widthPx, heightPx };
      dispatch({ type: "picture chosen", picture: chosen });
      if (!isOpenedAgain) void askAbout(chosen, {}, "");
    };
    // What the browser cannot show may still be readable on the server, or will be refused there with its reason.
    image.onload = () => take(image.naturalWidth, image.naturalHeight);
    image.onerror = () => take(0, 0);
    image.src = url;
    return () => URL.revokeObjectURL(url);
  }, [file, isOpenedAgain, askAbout, dispatch]);
}

function useMatchFacts(match: IdentifyMatch | undefined, isShown: boolean) {
  const { dispatch } = useBench();
  useEffect(() => {
    if (!isShown) return;
    if (!match) return dispatch({ type: "facts", facts: [] });
    const letters = [...match.letters].sort((a, b) => b.agreement - a.agreement);
    dispatch({
      type: "facts",
      facts: [
        `${match.family} ${match.style}`,
        `${Math.round(match.score * 100)} % match`,
        `strongest letter: ${letters[0]?.char ?? ""}`,
        `weakest: ${letters[letters.length - 1]?.char ?? ""}`,
      ],
    });
  }, [match, dispatch, isShown]);
}

type ToolsProps = {
  state: IdentifyState;
  picture: Picture;
  dispatch: Tell;
  onFiles: (files: File[]) => void;
  onCompare: Compare;
};

/** What can be done with the picture. */
function Tools({ state, picture, dispatch, onFiles, onCompare }: ToolsProps) {
  const { frame, corners, baseline, text, isTyped, busy } = state;
  const idle = frame || corners || baseline ? "Identify selection" : "Identify";
  return (
    <div className="flex flex-wrap justify-end gap-2">
      <button
        type="button"
        className="btn"
        aria-pressed={corners !== null}
        onClick={() => dispatch({ type: "corners", corners: corners ? null : cornersOf(picture, frame) })}
      >
        Fix perspective
      </button>
      <button
        type="button"
        className="btn"
        aria-pressed={baseline !== null}
        onClick={() => dispatch({ type: "baseline", baseline: baseline ? null : baselineOf(picture, frame) })}
      >
        Follow a curve
      </button>
      <Chooser onFiles={onFiles} label="Another picture" what="Picture" accept="image/*" multiple />
      <button type="button" className="btn btn-act" disabled={busy} onClick={() => onCompare(isTyped ? text : "")}>
        {busy ? "Comparing …" : idle}
      </button>
    </div>
  );
}

function AboutPicture({ state, picture, onAll }: Pick<MarkedProps, "state" | "picture" | "onAll">) {
  const { areas, busy } = state;
  const slopeDeg = Math.abs(state.result?.strip.slopeDeg ?? 0);
  return (
    <p className="flex min-w-0 items-center gap-4 text-[12px] text-basalt">
      <b className="min-w-16 truncate text-slate" title={picture.file.name}>
        {picture.file.name}
      </b>
      {picture.widthPx > 0 && (
        <span className="num shrink-0">
          {picture.widthPx} × {picture.heightPx} px
        </span>
      )}
      {slopeDeg > 0.05 && <span className="shrink-0">straightened {slopeDeg.toFixed(1)}°</span>}
      {areas.length > 1 && (
        <button type="button" className="shrink-0 font-semibold text-tide underline" disabled={busy} onClick={onAll}>
          Identify all {areas.length} lines
        </button>
      )}
    </p>
  );
}

type ReadAsProps = { id: string; state: IdentifyState; dispatch: Tell; onCompare: Compare };

function ReadAs({ id, state: { text, busy }, dispatch, onCompare }: ReadAsProps) {
  return (
    <form
      className="flex items-baseline gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        onCompare(text);
      }}
    >
      <label className="shrink-0 font-semibold" htmlFor={`reading ${id}`}>
        Read as
      </label>
      <input
        id={`reading ${id}`}
        className="field text-[17px]"
        maxLength={200}
        placeholder="Type what it says"
        value={text}
        onChange={(e) => dispatch({ type: "typed", text: e.target.value })}
      />
      <button type="submit" className="btn" disabled={busy || !text.trim()}>
        Compare again
      </button>
    </form>
  );
}
