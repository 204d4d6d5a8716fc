import { redirect } from "next/navigation";
import { getDb } from "@/server/db/open";
import { listBriefs } from "@/server/queries/briefs";
import { StartView } from "@/ui/start/StartView";

export const dynamic = "force-dynamic";

/** The first brief's wall; someone who has no brief yet is shown how to begin one. */
export default function Home() {
  const [first] = listBriefs(getDb());
  if (first) redirect(`/b/${first.briefId}/find`);
  return <StartView />;
}
