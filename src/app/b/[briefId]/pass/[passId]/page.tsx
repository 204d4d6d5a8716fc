import { notFound } from "next/navigation";
import { getDb } from "@/server/db/open";
import { getPass } from "@/server/usecases/passes";
import { getHeld } from "@/server/usecases/findings";
import { PassView } from "@/ui/pass/PassView";

export const metadata = { title: "Sorting through · Fond Quarry" };
export const dynamic = "force-dynamic";

export default async function Page({ params }: { params: Promise<{ briefId: string; passId: string }> }) {
  const { briefId, passId } = await params;
  const pass = getPass(getDb(), briefId, passId);
  if (!pass) notFound();
  return <PassView pass={pass} ranges={getHeld(getDb()).ranges} />;
}
