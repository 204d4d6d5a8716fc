"use client";
// From the wall into a pass: begin one with what is found, or go on with one that was stopped.
import { useQuery } from "@tanstack/react-query";
import type { PassSummary } from "@/contracts/passes";
import { useBench } from "../bench/BenchContext";
import { useGo } from "../bench/useGo";
import { queryOf, useChange } from "../parts/client";
import { NamedMenu } from "../parts/NamedMenu";

export function BeginPass({ question, title, total }: { question: string; title: string; total: number }) {
  const { brief, sayFault, say } = useBench();
  const go = useGo();
  const change = useChange();
  const params = { id: brief.briefId };
  const passes = useQuery(queryOf("listReviews", { params }));
  const open = (passId: string) => go(`/b/${brief.briefId}/pass/${passId}`);
  const begin = () => {
    change("startReview", { params, body: { question, title } })
      .then((p) => open(p.passId))
      .catch(sayFault);
  };
  const forget = (p: PassSummary) => {
    change("removeReview", { params: { ...params, passId: p.passId } })
      .then(() => say(`“${p.title}” forgotten. What was kept and set aside in it stays.`))
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
