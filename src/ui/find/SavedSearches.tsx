"use client";
// Saved searches: the address of a wall under a name. Saved, opened, forgotten with undo.
import { useQuery } from "@tanstack/react-query";
import type { SavedSearch } from "@/contracts/passes";
import { useBench } from "../bench/BenchContext";
import { call } from "../bench/commands";
import { useGo } from "../bench/useGo";
import { queryOf, useChange } from "../parts/client";
import { NamedMenu } from "../parts/NamedMenu";

/** Parts of an address that are not the search: how it is looked at. */
const LOOK = ["line", "columns", "zoom", "focus"];

export function SavedSearches({ nameNow }: { nameNow: string }) {
  const { brief, say, sayFault, perform } = useBench();
  const go = useGo();
  const change = useChange();
  const saved = useQuery(queryOf("listSearches", {}));
  const add = (name: string, address: string) => change("saveSearch", { body: { name, address } });
  const save = () => {
    const params = new URLSearchParams(window.location.search);
    for (const key of LOOK) params.delete(key);
    if (!params.size) return say("Nothing to save yet. Search or filter first.");
    add(nameNow || "Search", params.toString())
      .then((s) => say(`Saved as “${s.name}”.`))
      .catch(sayFault);
  };
  const forget = (s: SavedSearch) => {
    const { savedAt: _, ...again } = s;
    perform(
      `“${s.name}” forgotten`,
      call("removeSearch", { params: { id: s.searchId } }),
      call("saveSearch", { body: again }),
    );
  };
  return (
    <NamedMenu
      label="Searches"
      deed={{ label: "Save this search", onDo: save }}
      items={(saved.data?.searches ?? []).map((s) => ({
        id: s.searchId,
        name: s.name,
        forgetLabel: `Forget the search ${s.name}`,
        onOpen: () => go(`/b/${brief.briefId}/find?${s.address}`),
        onForget: () => forget(s),
      }))}
    />
  );
}
