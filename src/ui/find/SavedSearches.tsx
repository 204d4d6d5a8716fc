"use client";
// Saved searches: the address of a wall under a name. Saved, opened, forgotten with undo.
import { Menu, MenuButton, MenuItem, MenuItems, MenuSeparator } from "@headlessui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { ChevronDown } from "lucide-react";
import { useRouter } from "next/navigation";
import type { SavedSearch } from "@/contracts/passes";
import { useBench } from "../bench/BenchContext";
import { callApi } from "../parts/api";

/** Parts of an address that are not the search: how it is looked at. */
const LOOK = ["line", "columns", "zoom", "focus"];

export function SavedSearches({ nameNow }: { nameNow: string }) {
  const { brief, say, sayFault, offerUndo } = useBench();
  const router = useRouter();
  const queries = useQueryClient();
  const saved = useQuery({
    queryKey: ["searches"],
    queryFn: () => callApi<{ searches: SavedSearch[] }>("/searches"),
  });
  const refresh = () => queries.invalidateQueries({ queryKey: ["searches"] });
  const add = (name: string, address: string) =>
    callApi<SavedSearch>("/searches", { method: "POST", json: { name, address } }).then((s) => {
      void refresh();
      return s;
    });
  const save = () => {
    const params = new URLSearchParams(window.location.search);
    for (const key of LOOK) params.delete(key);
    if (!params.size) return say("There is nothing to save yet: find something first.");
    add(nameNow || "Search", params.toString())
      .then((s) => say(`Saved as “${s.name}”.`))
      .catch(sayFault);
  };
  const forget = (s: SavedSearch) => {
    callApi(`/searches/${s.searchId}`, { method: "DELETE" })
      .then(() => {
        void refresh();
        offerUndo(`“${s.name}” forgotten`, () => void add(s.name, s.address).catch(sayFault));
      })
      .catch(sayFault);
  };
  const list = saved.data?.searches ?? [];
  return (
    <Menu>
      <MenuButton className="flex items-center gap-1 whitespace-nowrap text-basalt">
        Searches <ChevronDown size={12} aria-hidden />
      </MenuButton>
      <MenuItems
        anchor="bottom end"
        className="z-40 mt-1 max-h-96 w-80 overflow-y-auto rounded-sm border border-rule bg-chalk py-1 shadow-lg focus:outline-none"
      >
        <MenuItem>
          <button
            type="button"
            onClick={save}
            className="block w-full px-3 py-1 text-left font-semibold text-tide data-focus:bg-limestone"
          >
            Save this search
          </button>
        </MenuItem>
        {list.length > 0 && <MenuSeparator className="my-1 h-px bg-rule" />}
        {list.map((s) => (
          <div key={s.searchId} className="flex items-center">
            <MenuItem>
              <button
                type="button"
                onClick={() => router.push(`/b/${brief.briefId}/find?${s.address}`)}
                className="block min-w-0 flex-1 truncate px-3 py-1 text-left data-focus:bg-limestone"
              >
                {s.name}
              </button>
            </MenuItem>
            <MenuItem>
              <button
                type="button"
                aria-label={`Forget the search ${s.name}`}
                onClick={() => forget(s)}
                className="btn-quiet mr-2 data-focus:bg-limestone"
              >
                ×
              </button>
            </MenuItem>
          </div>
        ))}
      </MenuItems>
    </Menu>
  );
}
