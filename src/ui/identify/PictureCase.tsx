"use client";
// One picture that is being identified: framed, read and corrected on the left, the answer on the right. Several may be open at once.
import { startTransition, useCallback, useEffect, useReducer, useRef, type Dispatch } from "react";
import type { HandCut, IdentifyMatch } from "@/contracts/identify";
import { useBench } from "../bench/BenchContext";
import { ask, faultOf } from "../parts/client";
import { writeFault } from "../messages";
import { FaultNote } from "../parts/FaultNote";
import { Answer } from "./Answer";
import type { OpenCase } from "./cases";
import { Chooser, DropArea } from "./DropArea";
import { Framing } from "./Framing";
import {
  baselineOf,
  cornersOf,
  identifyReducer,
  NOTHING,
  selectMatches,
  type IdentifyAction,
  type IdentifyState,
  type Picture,
} from "./state";
import { snapshotOf, type CaseSnapshot } from "./openCases";
import { Strip } from "./Strip";
import { useKeepIdentification } from "./kept";

const beginWith = ({ saved, left }: OpenCase): IdentifyState =>
  left
    ? { ...NOTHING, ...left }
    : saved
      ? {
          ...NOTHING,
          frame: saved.state.frame,
          corners: saved.state.corners,
          baseline: saved.state.baseline ?? null,
          text: saved.state.text,
          isTyped: saved.state.isTyped,
          result: saved.state.result,
          areas: saved.state.result.areas,
          savedAs: saved.identificationId,
          answered: {
            frame: saved.state.frame,
            corners: saved.state.corners,
            baseline: saved.state.baseline ?? null,
            text: saved.state.text,
            isTyped: saved.state.isTyped,
          },
        }
      : NOTHING;

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
  const { picture, frame, corners, baseline, text } = state;
  const shape: Shape = { frame, corners, baseline };
  const askAbout = useAsking(dispatch);
  const { file } = open;
  useChosenPicture(file, Boolean(open.saved ?? open.left?.result), dispatch, askAbout);
  useEffect(() => {
    if (state.picture) onLeft(open.key, snapshotOf(state));
  }, [state, onLeft, open.key]);
  const match = selectMatches(state)[state.focus];
  useMatchFacts(match, isShown);
  const keeping = useKeepIdentification(state, brief.briefId, (id) => dispatch({ type: "kept", id }));

  if (!picture) return <p className="p-6 text-basalt">Opening {file.name} …</p>;
  const compare = (words: string, more?: AskMore) => void askAbout(picture, shape, words, more);
  return (
    <div className="grid h-full grid-cols-[minmax(0,1.36fr)_minmax(0,1fr)]" hidden={!isShown} data-case={file.name}>
      <DropArea onFiles={onFiles} className="flex min-h-0 flex-col gap-3 overflow-y-auto px-4 py-3">
        <Framing
          picture={picture}
          frame={frame}
          corners={corners}
          baseline={baseline}
          areas={state.areas}
          onFrame={(f) => dispatch({ type: "framed", frame: f })}
          onCorners={(c) => dispatch({ type: "corners", corners: c })}
          onBaseline={(b) => dispatch({ type: "baseline", baseline: b })}
          onArea={(area) => {
            dispatch({ type: "framed", frame: area });
            dispatch({ type: "typed", text: "" });
            void askAbout(picture, { frame: area }, "");
          }}
        />
        <Tools state={state} picture={picture} dispatch={dispatch} onFiles={onFiles} onCompare={compare} />
        {state.fault && <FaultNote fault={state.fault} />}
        <ReadAs id={open.key} state={state} dispatch={dispatch} onCompare={compare} />
        {state.result && match && (
          <Strip
            key={state.asks}
            result={state.result}
            match={match}
            lay={state.lay}
            busy={state.busy}
            onLay={(lay) => dispatch({ type: "laid", lay })}
            onCut={(cut, letters) => {
              dispatch({ type: "typed", text: letters });
              compare(letters, { cut });
            }}
          />
        )}
      </DropArea>
      <Answer
        state={state}
        dispatch={dispatch}
        isShown={isShown}
        onTry={(styleId) => compare(text || state.result?.reading.text || "", { styleId })}
        onCorners={() => dispatch({ type: "corners", corners: cornersOf(picture, frame) })}
        keeping={keeping}
      />
    </div>
  );
}

type Tell = Dispatch<IdentifyAction>;
type Compare = (words: string, more?: AskMore) => void;
type AskAbout = ReturnType<typeof useAsking>;

function formOf(of: Picture, within: Partial<Shape>, words: string, more: AskMore): FormData {
  const form = new FormData();
  form.append("image", of.file);
  form.append("limit", "12");
  if (words.trim()) form.append("text", words.trim());
  if (within.baseline) form.append("baseline", JSON.stringify(within.baseline));
  else if (within.corners) form.append("corners", JSON.stringify(within.corners));
  else if (within.frame) form.append("box", JSON.stringify(within.frame));
  if (more.cut) form.append("cut", JSON.stringify(more.cut));
  if (more.styleId) form.append("styleId", more.styleId);
  return form;
}

/** Asks what a picture says, one question at a time: a new one gives the one before up. */
function useAsking(dispatch: Tell) {
  const asked = useRef<AbortController | null>(null);
  useEffect(() => () => asked.current?.abort(), []);
  return useCallback(
    async (of: Picture, within: Partial<Shape>, words: string, more: AskMore = {}) => {
      asked.current?.abort();
      const stop = new AbortController();
      asked.current = stop;
      dispatch({ type: "asked" });
      try {
        const result = await ask("identify", { form: formOf(of, within, words, more) }, { signal: stop.signal });
        const { frame = null, corners = null, baseline = null } = within;
        const about = { frame, corners, baseline, text: words, isTyped: words.trim() !== "" };
        // In small steps: the page goes on answering to the hand while twenty rows are made.
        if (asked.current === stop)
          startTransition(() =>
            dispatch(more.styleId ? { type: "tried", result } : { type: "answered", result, asked: about }),
          );
      } catch (error) {
        if ((error as Error).name === "AbortError" || asked.current !== stop) return;
        dispatch({ type: "refused", fault: writeFault(faultOf(error)), keepsAnswer: Boolean(more.styleId) });
      }
    },
    [dispatch],
  );
}

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

/** What the picture is, and what can be done with it. */
function Tools({ state, picture, dispatch, onFiles, onCompare }: ToolsProps) {
  const { frame, corners, baseline, text, isTyped, result, busy } = state;
  const slopeDeg = Math.abs(result?.strip.slopeDeg ?? 0);
  const idle = frame || corners || baseline ? "Identify selection" : "Identify";
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-2 text-[12px] text-basalt">
      <b className="max-w-[180px] min-w-16 truncate text-slate" title={picture.file.name}>
        {picture.file.name}
      </b>
      {picture.widthPx > 0 && (
        <span className="num shrink-0">
          {picture.widthPx} × {picture.heightPx} px
        </span>
      )}
      {slopeDeg > 0.05 && <span className="shrink-0">straightened {slopeDeg.toFixed(1)}°</span>}
      <span className="ml-auto flex shrink-0 gap-2">
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
      </span>
    </div>
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

/** What is asked about: a frame, four corners, or a curved baseline. */
type Shape = Pick<IdentifyState, "frame" | "corners" | "baseline">;
type AskMore = { cut?: HandCut; styleId?: string };
