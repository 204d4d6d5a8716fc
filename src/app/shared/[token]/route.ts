import { showShare } from "@/server/operations/sharePage";

export const dynamic = "force-dynamic";

export async function GET(request: Request, { params }: RouteContext<"/shared/[token]">) {
  return showShare(request, (await params).token);
}
