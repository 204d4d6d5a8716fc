import { preload } from "react-dom";
import { pathOf } from "@/contracts/operations/operation";
import { OPERATIONS } from "@/contracts/operations/table";
import { StyleQuery, WALL_PAGE, type StyleList } from "@/contracts/styles";
import { getDb } from "@/server/db/open";
import { listFound } from "@/server/usecases/findings";
import { FindView } from "@/ui/find/FindView";
import { readQuestion } from "@/ui/find/question";

export const metadata = { title: "Find · Fond Quarry" };
export const dynamic = "force-dynamic";

type Props = {
  params: Promise<{ briefId: string }>;
  searchParams: Promise<Record<string, string | string[] | undefined>>;
};

export default async function Page({ params, searchParams }: Props) {
  const { briefId } = await params;
  const question = readQuestion(await searchParams, briefId);
  const query = StyleQuery.safeParse({
    ...Object.fromEntries(new URLSearchParams(question)),
    limit: WALL_PAGE,
    cursor: "0",
  });
  if (!query.success) return <FindView first={null} />;
  const list = listFound(getDb(), query.data);
  preloadFonts(list);
  return <FindView first={{ question, list }} />;
}

/** Faces that a first screen shows at once. */
const FIRST_FACES = 6;

/** Their fonts are on the way while the page starts. */
function preloadFonts({ items }: StyleList) {
  for (const { styleId, owned } of items.slice(0, FIRST_FACES))
    if (owned)
      preload(`/api/v1${pathOf(OPERATIONS.getStyleFile, { id: styleId })}`, { as: "font", crossOrigin: "anonymous" });
}
