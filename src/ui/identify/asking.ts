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

/** The answer, and on the way to it what is told. @throws ApiFault for a refusal. */
async function askInSteps(form: FormData, signal: AbortSignal, onStep: (step: IdentifyStep) => void) {
  for await (const line of askLines("identifyInSteps", { form }, { signal })) {
    const step = IdentifyStep.parse(line);
    if (step.step === "answered") return step.answer;
    if (step.step === "refused") throw new ApiFault(step.error, 400);
    onStep(step);
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
  const askAll = useCallback(
    async (of: Picture) => {
      asked.current?.abort();
      const stop = new AbortController();
      asked.current = stop;
      dispatch({ type: "layout asked" });
      const form = new FormData();
      form.append("image", of.file);
      try {
        for await (const line of askLines("identifyLayout", { form }, { signal: stop.signal })) {
          const step = LayoutStep.parse(line);
          if (asked.current !== stop) return;
          if (step.step === "refused") throw new ApiFault(step.error, 400);
          startTransition(() => dispatch({ type: "layout told", step }));
        }
      } catch (error) {
        if ((error as Error).name === "AbortError" || asked.current !== stop) return;
        dispatch({ type: "refused", fault: writeFault(faultOf(error)), keepsAnswer: true });
      }
    },
    [dispatch],
  );
  const askAbout = useCallback(
    async (of: Picture, within: Partial<Shape>, words: string, more: AskMore = {}) => {
      asked.current?.abort();
      const stop = new AbortController();
      asked.current = stop;
      dispatch({ type: "asked" });
      try {
        const result = await askInSteps(formOf(of, within, words, more), stop.signal, (step) => {
          if (asked.current === stop) dispatch({ type: "told", step });
        });
        const about = { ...shapeOf({ ...NOTHING, ...within }), text: words, isTyped: words.trim() !== "" };
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
  return { askAbout, askAll, giveUp };
}
