import { notFound } from "next/navigation";
import type { ReactNode } from "react";
import { isLoopbackOnly } from "@/server/access/hosts";
import { getDb } from "@/server/db/open";
import { findBrief, listBriefs } from "@/server/queries/briefs";
import { Bench } from "@/ui/bench/Bench";

export const dynamic = "force-dynamic";

export default async function BriefLayout({
  params,
  children,
}: {
  params: Promise<{ briefId: string }>;
  children: ReactNode;
}) {
  const { briefId } = await params;
  const brief = findBrief(getDb(), briefId);
  if (!brief) notFound();
  const briefs = listBriefs(getDb())
    .filter((b) => !b.archived || b.briefId === briefId)
    .map((b) => ({ briefId: b.briefId, name: b.name }));
  return (
    <Bench brief={brief} briefs={briefs} isShared={!isLoopbackOnly()}>
      {children}
    </Bench>
  );
}
