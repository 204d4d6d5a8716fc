// Identifications that are kept with a brief: where the list of them is held, and how one is let go or brought back.
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import type { SavedIdentification } from "@/contracts/identifications";
import { useBench } from "../bench/BenchContext";
import { callApi } from "../parts/api";
import { isAnswered, type IdentifyState } from "./state";

export const keptKey = (briefId: string) => ["identifications", briefId];

/** Lets one go (false) or brings it back; the list follows. */
export function useSetKept(briefId: string): (identificationId: string, isKept: boolean) => Promise<void> {
  const queries = useQueryClient();
  return async (identificationId, isKept) => {
    await callApi(`/briefs/${briefId}/identifications/${identificationId}`, {
      method: "PATCH",
      json: { removed: !isKept },
    });
    await queries.invalidateQueries({ queryKey: keptKey(briefId) });
  };
}

export type Keeping = { busy: boolean; keep: () => Promise<string | null> };

/** Keeps picture, frame, reading and answer with the brief. `keep` gives the id, null when it could not be kept. */
export function useKeepIdentification(state: IdentifyState, briefId: string, onKept: (id: string) => void): Keeping {
  const { say, sayFault, offerUndo } = useBench();
  const queries = useQueryClient();
  const setKept = useSetKept(briefId);
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
      const kept = await callApi<SavedIdentification>(`/briefs/${briefId}/identifications`, {
        method: "POST",
        body: form,
      });
      onKept(kept.identificationId);
      // Its id stands in the address: a reload opens what was kept.
      const address = new URL(window.location.href);
      address.searchParams.set("kept", kept.identificationId);
      window.history.replaceState(null, "", address);
      await queries.invalidateQueries({ queryKey: keptKey(briefId) });
      offerUndo("Identification kept with the brief", () => {
        setKept(kept.identificationId, false)
          .then(() => say("Not kept."))
          .catch(sayFault);
      });
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
