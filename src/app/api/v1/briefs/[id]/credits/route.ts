import { download, refusal, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { findBrief } from "@/server/queries/briefs";
import { gatherShortlist, writeShortlistCredits } from "@/server/usecases/shortlist";

export const GET = route<{ id: string }>((_request, { id }) => {
  if (!findBrief(getDb(), id)) return refusal("not-found");
  const { brief, styles } = gatherShortlist(getDb(), id);
  if (!styles.length) return refusal("nothing-kept");
  return download(writeShortlistCredits(brief, styles), "text/plain; charset=utf-8", `${brief.name} credits.txt`);
});
