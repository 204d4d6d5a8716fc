import { getDb } from "@/server/db/open";
import { listBriefs } from "@/server/queries/briefs";
import { AllBriefsView } from "@/ui/start/AllBriefsView";
import { StartView } from "@/ui/start/StartView";

export const dynamic = "force-dynamic";

/** All briefs; someone who has none yet is shown how to begin one. */
export default function Home() {
  const briefs = listBriefs(getDb());
  return briefs.length ? <AllBriefsView briefs={briefs} /> : <StartView />;
}
