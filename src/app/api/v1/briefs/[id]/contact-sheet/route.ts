import { answer, download, refusal, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { findBrief } from "@/server/queries/briefs";
import { gatherShortlist, writeSheetFor } from "@/server/usecases/shortlist";

export const maxDuration = 120;

export const GET = route<{ id: string }>(async (request, { id }) => {
  if (!findBrief(getDb(), id)) return refusal("not-found");
  const { brief, styles } = gatherShortlist(getDb(), id);
  if (!styles.length) return refusal("nothing-kept");
  const sheet = await writeSheetFor(brief, styles, request.signal);
  return sheet.ok ? download(sheet.value, "application/pdf", `${brief.name} contact sheet.pdf`) : answer(sheet);
});
