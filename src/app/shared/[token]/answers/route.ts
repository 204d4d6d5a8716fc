import { takeShareAnswer } from "@/server/operations/sharePage";

export const dynamic = "force-dynamic";

export async function POST(request: Request, { params }: RouteContext<"/shared/[token]/answers">) {
  return takeShareAnswer(request, (await params).token);
}
