import { notFound } from "next/navigation";
import { getDb } from "@/server/db/open";
import { getStyleDetail } from "@/server/usecases/styleDetail";
import { StyleView } from "@/ui/style/StyleView";

export const metadata = { title: "Style · Fond Quarry" };

export default async function Page({ params }: { params: Promise<{ briefId: string; styleId: string }> }) {
  const { briefId, styleId } = await params;
  const style = getStyleDetail(getDb(), styleId, briefId);
  if (!style) notFound();
  return <StyleView style={style} key={styleId} />;
}
