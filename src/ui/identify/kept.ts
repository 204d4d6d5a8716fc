// Identifications that are kept with a brief: where the list of them is held, and how one is let go or brought back.
import { useQueryClient } from "@tanstack/react-query";
import { callApi } from "../parts/api";

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
