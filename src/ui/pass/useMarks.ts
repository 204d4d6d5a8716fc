"use client";
// Marks of a review: shown at once, saved in order by the bench, taken back and done again by commands that outlive a reload.
import { useQueryClient } from "@tanstack/react-query";
import { useEffect, type Dispatch } from "react";
import type { Kept } from "@/contracts/brief";
import type { KeptId, StyleId } from "@/contracts/ids";
import { pathOf } from "@/contracts/operations/operation";
import { OPERATIONS } from "@/contracts/operations/table";
import type { Mark, Pass } from "@/contracts/passes";
import { keptIdOf } from "@/core/brief/keptId";
import { useBench } from "../bench/BenchContext";
import type { Save } from "../bench/saves";
import { readWaiting } from "../bench/savesStore";
import { useCommandStack, useViewCommands } from "../bench/useCommands";
import { readAgain } from "../parts/client";
import { commandsOf, endIn, putMark, type MarkChange, type Marks, type PassAction, type PassState } from "./state";

export type Decisions = { mark: (what: Mark["mark"]) => void; undo: () => void; redo: () => void; canUndo: boolean };

export function useMarks(pass: Pass, state: PassState, dispatch: Dispatch<PassAction>): Decisions {
  const { dispatch: tellBench, addSave, say } = useBench();
  const queries = useQueryClient();
  useEffect(
    // What was decided here is seen on the wall and in the tray when the review is left.
    () => () => void readAgain(queries, "styles", "reviews", "kept"),
    [queries],
  );
  useEffect(() => {
    for (const change of waitingOf(pass)) dispatch({ type: "marked", change, goesOn: true });
  }, [pass, dispatch]);
  const stack = useCommandStack<MarkChange>(`${pass.briefId} ${pass.passId}`, (kept) => {
    const marks = waitingOf(pass).reduce<Marks>(putMark, new Map(pass.marks.map((m) => [m.place, m.mark])));
    return kept && endIn(kept, marks) ? kept : commandsOf(marks);
  });
  const apply = (change: MarkChange, way: "forward" | "backward") => {
    const styleId = pass.styleIds[change.place];
    if (!styleId) return;
    const was = state.marks.get(change.place) ?? null;
    dispatch({ type: "marked", change, goesOn: way === "forward" });
    addSave(saveOf(pass, change));
    if (was === "kept") tellBench({ type: "let go", keptId: keptIdOf(styleId) as KeptId });
    if (was === "aside") tellBench({ type: "set aside", styleId, aside: false });
    if (change.mark === "kept") tellBench({ type: "kept", entry: newlyKept(styleId) });
    if (change.mark === "aside") tellBench({ type: "set aside", styleId, aside: true });
  };
  const { run, undo, redo, canUndo } = useViewCommands(stack, apply, (which) =>
    say(which === "undo" ? "This is the first face." : "There is nothing to redo."),
  );
  const mark: Decisions["mark"] = (what) => {
    const { place, marks } = state;
    if (pass.styleIds[place]) run({ place, mark: what }, { place, mark: marks.get(place) ?? null });
  };
  return { mark, undo, redo, canUndo };
}

const nameOf = (pass: Pass, place: number) => `mark ${pass.passId} ${place}`;

function saveOf(pass: Pass, { place, mark }: MarkChange): Save {
  const params = { id: pass.briefId, passId: pass.passId, place: String(place) };
  const name = nameOf(pass, place);
  return mark
    ? { name, path: pathOf(OPERATIONS.putMark, params), method: "PUT", json: { mark } }
    : { name, path: pathOf(OPERATIONS.removeMark, params), method: "DELETE" };
}

/** Marks that were made before a reload and are still on their way. */
const waitingOf = (pass: Pass): MarkChange[] =>
  readWaiting(pass.briefId).flatMap(({ name, json }) => {
    const place = Number(name.split(" ").pop());
    if (name !== nameOf(pass, place)) return [];
    return { place, mark: (json?.mark as Mark["mark"] | undefined) ?? null };
  });

/** A face as it is kept until the server says how. */
const newlyKept = (styleId: StyleId): Kept => ({
  keptId: keptIdOf(styleId) as KeptId,
  styleId,
  location: {},
  features: {},
  role: "",
  group: "",
  note: "",
  favourite: false,
  place: 1e6,
  keptAt: new Date().toISOString(),
});
