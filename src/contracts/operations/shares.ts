// Faces shown to a client. The page itself stands outside this table, under the address that a share gives.
import { z } from "zod";
import { BriefId } from "../ids";
import { Share, ShareCreate, ShareId } from "../share";
import { operations } from "./operation";

const params = z.object({ id: BriefId });
const ofShare = z.object({ id: ShareId });

export const SHARE_OPERATIONS = operations({
  listShares: {
    method: "get",
    path: "/briefs/{id}/shares",
    summary: "What of a brief is shown to clients, the last first, with their answers",
    access: "reader",
    params,
    output: z.object({ shares: z.array(Share) }),
    reads: ["shares"],
  },
  createShare: {
    method: "post",
    path: "/briefs/{id}/shares",
    summary: "Make a link that shows faces in the words of the brief",
    access: "editor",
    params,
    body: ShareCreate,
    output: Share,
    status: 201,
    changes: ["shares", "decisions"],
  },
  getShare: {
    method: "get",
    path: "/shares/{id}",
    summary: "One link and its answers",
    access: "reader",
    params: ofShare,
    output: Share,
    reads: ["shares"],
  },
  endShare: {
    method: "delete",
    path: "/shares/{id}",
    summary: "End a link: its page and its fonts are gone from then on",
    access: "editor",
    params: ofShare,
    output: Share,
    changes: ["shares", "decisions"],
  },
});
