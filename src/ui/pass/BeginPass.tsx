"use client";
// From the wall into a pass: begin one with what is found, or go on with one that was stopped.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import type { Pass, PassSummary } from "@/contracts/passes";
import { useBench } from "../bench/BenchContext";
import { useGo } from "../bench/useGo";
import { callApi } from "../parts/api";
import { NamedMenu } from "../parts/NamedMenu";

export function BeginPass({ question, title, total }: { question: string; title: string; total: number }) {
  const { brief, sayFault, say } = useBench();
  const go = useGo();
  const queries = useQueryClient();
  const passes = useQuery({
    queryKey: ["passes", brief.briefId],
    queryFn: () => callApi<{ passes: PassSummary[] }>(`/briefs/${brief.briefId}/passes`),
  });
  const open = (passId: string) => go(`/b/${brief.briefId}/pass/${passId}`);
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
  const isOpen = (p: PassSummary) => p.done < p.total && !p.endedAt;
  return (
    <NamedMenu
      label="Review one by one"
      isStrong
      deed={{ label: `Start with these ${total}`, isOff: !total, onDo: begin }}
      items={(passes.data?.passes ?? []).map((p) => ({
        id: p.passId,
        name: isOpen(p) ? `Resume: ${p.title}` : p.title,
        note: `${p.done} of ${p.total}`,
        forgetLabel: `Forget the pass ${p.title}`,
        onOpen: () => open(p.passId),
        onForget: () => forget(p),
      }))}
    />
  );
}
