import { NextResponse } from "next/server";
import { refusal, route, whoAsks } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { setAside } from "@/server/usecases/briefs";

type Params = { id: string; styleId: string };
const put = (aside: boolean) =>
  route<Params>((request, { id, styleId }) =>
    setAside(getDb(), id, styleId, aside, whoAsks(request))
      ? NextResponse.json({ styleId, aside })
      : refusal("not-found"),
  );

export const PUT = put(true);
export const DELETE = put(false);
