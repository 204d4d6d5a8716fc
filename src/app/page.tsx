import { redirect } from "next/navigation";
import { getDb } from "@/server/db/open";
import { listBriefs } from "@/server/queries/briefs";
import { createBrief } from "@/server/usecases/briefs";

export const dynamic = "force-dynamic";

/** The first brief's wall; someone who has no brief yet gets an empty one to fill in. */
export default function Home() {
  const [first] = listBriefs(getDb());
  if (first) redirect(`/b/${first.briefId}/find`);
  redirect(`/b/${createBrief(getDb(), { name: "First brief" })!.briefId}/brief`);
}
