// Asking what a picture says, and hearing on the way to the answer how far it has come.
import { startTransition, useCallback, useEffect, useRef, type Dispatch } from "react";
import { IdentifyStep, LayoutStep, type HandCut } from "@/contracts/identify";
import { writeFault } from "../messages";
import { ApiFault, askLines, faultOf } from "../parts/client";
import { NOTHING, shapeOf, type IdentifyAction, type Picture, type Shape } from "./state";

export type Tell = Dispatch<IdentifyAction>;
export type AskMore = { cut?: HandCut; styleId?: string };
export type AskAbout = ReturnType<typeof useAsking>["askAbout"];

function formOf(of: Picture, within: Partial<Shape>, words: string, more: AskMore): FormData {
  const form = new FormData();
  form.append("image", of.file);
  form.append("limit", "12");
  if (words.trim()) form.append("text", words.trim());
  if (within.baseline) form.append("baseline", JSON.stringify(within.baseline));
  else if (within.corners) form.append("corners", JSON.stringify(within.corners));
  else if (within.frame) form.append("box", JSON.stringify(within.frame));
  if (within.ink) form.append("ink", JSON.stringify(within.ink));
  if (more.cut) form.append("cut", JSON.stringify(more.cut));
  if (more.styleId) form.append("styleId", more.styleId);
  return form;
}

/** What is told on the way to an answer, the answer itself at the end. @throws ApiFault for a refusal, or where it ends without an answer. */
async function* hearSteps<Step extends IdentifyStep | LayoutStep>(
  name: "identifyInSteps" | "identifyLayout",
  form: FormData,
  read: { parse: (line: unknown) => Step },
  isLast: (step: Step) => boolean,
  signal: AbortSignal,
) {
  for await (const line of askLines(name, { form }, { signal })) {
    const step = read.parse(line);
    if (step.step === "refused") throw new ApiFault(step.error, 400);
    yield step as Exclude<Step, { step: "refused" }>;
    if (isLast(step)) return;
  }
  throw new ApiFault({ code: "internal", message: "The server stopped before it had an answer." }, 0);
}

/** Asks what a picture says, one question at a time: a new one gives the one before up. */
export function useAsking(dispatch: Tell) {
  const asked = useRef<AbortController | null>(null);
  useEffect(() => () => asked.current?.abort(), []);
  const giveUp = useCallback(() => {
    asked.current?.abort();
    asked.current = null;
    dispatch({ type: "given up" });
  }, [dispatch]);
  /** Hears all steps of one question, for as long as no other is asked. @param keepsAnswer - a refusal leaves the answer in view. */
  const hear = useCallback(
    async <Step>(
      steps: (signal: AbortSignal) => AsyncIterable<Step>,
      onStep: (step: Step) => void,
      keepsAnswer: boolean,
    ) => {
      asked.current?.abort();
      const stop = new AbortController();
      asked.current = stop;
      try {
        for await (const step of steps(stop.signal)) {
          if (asked.current !== stop) return;
          onStep(step);
        }
      } catch (error) {
        if ((error as Error).name === "AbortError" || asked.current !== stop) return;
        dispatch({ type: "refused", fault: writeFault(faultOf(error)), keepsAnswer });
      }
    },
    [dispatch],
  );
  const askAll = useCallback(
    (of: Picture) => {
      dispatch({ type: "layout asked" });
      const form = new FormData();
      form.append("image", of.file);
      return hear(
        (signal) => hearSteps("identifyLayout", form, LayoutStep, (step) => step.step === "grouped", signal),
        (step) => startTransition(() => dispatch({ type: "layout told", step })),
        true,
      );
    },
    [dispatch, hear],
  );
  const askAbout = useCallback(
    (of: Picture, within: Partial<Shape>, words: string, more: AskMore = {}) => {
      dispatch({ type: "asked" });
      const form = formOf(of, within, words, more);
      const about = { ...shapeOf({ ...NOTHING, ...within }), text: words, isTyped: words.trim() !== "" };
      return hear(
        (signal) => hearSteps("identifyInSteps", form, IdentifyStep, (step) => step.step === "answered", signal),
        (step) => {
          if (step.step !== "answered") return dispatch({ type: "told", step });
          const { answer: result } = step;
          // In small steps: the page goes on answering to the hand while twenty rows are made.
          startTransition(() =>
            dispatch(more.styleId ? { type: "tried", result } : { type: "answered", result, asked: about }),
          );
        },
        Boolean(more.styleId),
      );
    },
    [dispatch, hear],
  );
  return { askAbout, askAll, giveUp };
}
