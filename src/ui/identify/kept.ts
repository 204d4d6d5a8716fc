// Identifications that are kept with a brief: where the list of them is held, and how one is let go or brought back.
import { useState } from "react";
import { useBench } from "../bench/BenchContext";
import { call } from "../bench/commands";
import { useChange } from "../parts/client";
import { isAnswered, type IdentifyState } from "./state";

/** Lets one go (false) or brings it back. */
export const setKept = (briefId: string, identificationId: string, isKept: boolean) =>
  call("removeIdentification", { params: { id: briefId, identificationId }, body: { removed: !isKept } });

export type Keeping = { busy: boolean; keep: () => Promise<string | null> };

/** Keeps picture, frame, reading and answer with the brief. `keep` gives the id, null when it could not be kept. */
export function useKeepIdentification(state: IdentifyState, briefId: string, onKept: (id: string) => void): Keeping {
  const { sayFault, recordDone } = useBench();
  const change = useChange();
  const [busy, setBusy] = useState(false);
  const keep = async () => {
    const { picture, result, savedAs, answered } = state;
    // An answer is kept with what it answers, never with words that were typed since.
    if (savedAs || !picture || !result || !answered || !isAnswered(state)) return savedAs;
    setBusy(true);
    const form = new FormData();
    form.append("image", picture.file);
    form.append("state", JSON.stringify({ ...answered, result }));
    try {
      const kept = await change("keepIdentification", { params: { id: briefId }, form });
      onKept(kept.identificationId);
      // Its id stands in the address: a reload opens what was kept.
      const address = new URL(window.location.href);
      address.searchParams.set("kept", kept.identificationId);
      window.history.replaceState(null, "", address);
      const set = (isKept: boolean) => setKept(briefId, kept.identificationId, isKept);
      recordDone("Identification kept with the brief", set(true), set(false));
      return kept.identificationId;
    } catch (error) {
      sayFault(error);
      return null;
    } finally {
      setBusy(false);
    }
  };
  return { busy: busy || !isAnswered(state), keep };
}
