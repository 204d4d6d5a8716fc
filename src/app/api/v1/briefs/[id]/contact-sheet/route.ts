import { download, refusal, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { findBrief } from "@/server/queries/briefs";
import { gatherShortlist, writeSheetFor } from "@/server/usecases/shortlist";

export const maxDuration = 120;

export const GET = route<{ id: string }>(async (_request, { id }) => {
  if (!findBrief(getDb(), id)) return refusal("not-found");
  const { brief, styles } = gatherShortlist(getDb(), id);
  if (!styles.length) return refusal("nothing-kept");
  return download(await writeSheetFor(brief, styles), "application/pdf", `${brief.name} contact sheet.pdf`);
});
