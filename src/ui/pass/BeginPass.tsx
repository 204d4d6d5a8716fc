"use client";
// From the wall into a pass: begin one with what is found, or go on with one that was stopped.
import { Menu, MenuButton, MenuItem, MenuItems, MenuSeparator } from "@headlessui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { ChevronDown } from "lucide-react";
import { useRouter } from "next/navigation";
import type { Pass, PassSummary } from "@/contracts/passes";
import { useBench } from "../bench/BenchContext";
import { callApi } from "../parts/api";

export function BeginPass({ question, title, total }: { question: string; title: string; total: number }) {
  const { brief, sayFault, say } = useBench();
  const router = useRouter();
  const queries = useQueryClient();
  const passes = useQuery({
    queryKey: ["passes", brief.briefId],
    queryFn: () => callApi<{ passes: PassSummary[] }>(`/briefs/${brief.briefId}/passes`),
  });
  const open = (passId: string) => router.push(`/b/${brief.briefId}/pass/${passId}`);
  const begin = () => {
    callApi<Pass>(`/briefs/${brief.briefId}/passes`, { method: "POST", json: { question, title } })
      .then((p) => {
        void queries.invalidateQueries({ queryKey: ["passes", brief.briefId] });
        open(p.passId);
      })
      .catch(sayFault);
  };
  const forget = (p: PassSummary) => {
    callApi(`/briefs/${brief.briefId}/passes/${p.passId}`, { method: "DELETE" })
      .then(() => {
        void queries.invalidateQueries({ queryKey: ["passes", brief.briefId] });
        say(`“${p.title}” forgotten. What was kept and set aside in it stays.`);
      })
      .catch(sayFault);
  };
  const list = passes.data?.passes ?? [];
  const openOnes = list.filter((p) => p.done < p.total && !p.endedAt);
  return (
    <Menu>
      <MenuButton className="flex items-center gap-1 font-semibold whitespace-nowrap">
        Sort through <ChevronDown size={12} aria-hidden />
      </MenuButton>
      <MenuItems
        anchor="bottom start"
        className="z-40 mt-1 max-h-96 w-96 overflow-y-auto rounded-sm border border-rule bg-chalk py-1 shadow-lg focus:outline-none"
      >
        <MenuItem disabled={!total}>
          <button
            type="button"
            onClick={begin}
            className="block w-full px-3 py-1 text-left font-semibold text-tide data-disabled:opacity-50 data-focus:bg-limestone"
          >
            Begin with these {total}, one after another
          </button>
        </MenuItem>
        {list.length > 0 && <MenuSeparator className="my-1 h-px bg-rule" />}
        {list.map((p) => (
          <div key={p.passId} className="flex items-center">
            <MenuItem>
              <button
                type="button"
                onClick={() => open(p.passId)}
                className="flex min-w-0 flex-1 justify-between gap-3 px-3 py-1 text-left data-focus:bg-limestone"
              >
                <span className="truncate">{openOnes.includes(p) ? `Go on: ${p.title}` : p.title}</span>
                <span className="num shrink-0">
                  {p.done} of {p.total}
                </span>
              </button>
            </MenuItem>
            <MenuItem>
              <button
                type="button"
                aria-label={`Forget the pass ${p.title}`}
                onClick={() => forget(p)}
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
