import { sendShareFont } from "@/server/operations/sharePage";

export const dynamic = "force-dynamic";

export async function GET(request: Request, { params }: RouteContext<"/shared/[token]/fonts/[file]">) {
  const { token, file } = await params;
  return sendShareFont(request, token, file);
}
