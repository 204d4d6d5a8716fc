import { download, refusal, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { findBrief } from "@/server/queries/briefs";
import { gatherShortlist, writeSpdxFor } from "@/server/usecases/shortlist";

export const GET = route<{ id: string }>((_request, { id }) => {
  if (!findBrief(getDb(), id)) return refusal("not-found");
  const { brief, styles } = gatherShortlist(getDb(), id);
  if (!styles.length) return refusal("nothing-kept");
  return download(writeSpdxFor(brief, styles), "application/spdx+json", `${brief.name}.spdx.json`);
});
