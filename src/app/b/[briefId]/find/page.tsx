import { StyleQuery } from "@/contracts/styles";
import { getDb } from "@/server/db/open";
import { listFound } from "@/server/usecases/findings";
import { FindView } from "@/ui/find/FindView";
import { readQuestion } from "@/ui/find/question";

export const metadata = { title: "Find · Fond Quarry" };
export const dynamic = "force-dynamic";

const PAGE = 60;

type Props = {
  params: Promise<{ briefId: string }>;
  searchParams: Promise<Record<string, string | string[] | undefined>>;
};

export default async function Page({ params, searchParams }: Props) {
  const { briefId } = await params;
  const question = readQuestion(await searchParams, briefId);
  const query = StyleQuery.safeParse({
    ...Object.fromEntries(new URLSearchParams(question)),
    limit: PAGE,
    cursor: "0",
  });
  if (!query.success) return <FindView first={null} />;
  const list = listFound(getDb(), query.data);
  return <FindView first={{ question, list }} />;
}
