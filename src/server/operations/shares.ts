// What answers questions about faces shown to clients.
import { succeed } from "@/contracts/errors";
import type { SHARE_OPERATIONS } from "@/contracts/operations/shares";
import { createShare, endShare, getShare, listBriefShares } from "../usecases/shares";
import { found, type Handlers } from "./bind";

/** The server as whoever asks reached it: links that are passed on lead back the same way. */
function originOf(request: Request): string {
  const { protocol, host } = new URL(request.url);
  return `${protocol}//${request.headers.get("host") ?? host}`;
}

export const shareHandlers: Handlers<keyof typeof SHARE_OPERATIONS> = {
  listShares: ({ db, params, request }) => succeed({ shares: listBriefShares(db, params.id, originOf(request)) }),
  createShare: ({ db, params, body, by, request }) => createShare(db, params.id, body, by, originOf(request)),
  getShare: ({ db, params, request }) => found(getShare(db, params.id, originOf(request))),
  endShare: ({ db, params, by, request }) => found(endShare(db, params.id, by, originOf(request))),
};
