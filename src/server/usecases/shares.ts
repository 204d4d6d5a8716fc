// Faces shown to a client by a link: made, looked at, answered, ended. The token in the address is the only right that the page has.
import { randomBytes } from "node:crypto";
import { LRUCache } from "lru-cache";
import type { Brief } from "@/contracts/brief";
import { refuse, succeed, type Outcome } from "@/contracts/errors";
import {
  SHARED_AT_MOST,
  type Share,
  type ShareAnswer,
  type ShareAnswerPost,
  type ShareCreate,
  type ShareId,
} from "@/contracts/share";
import { charactersOf } from "@/core/brief/characters";
import type { Db } from "../db/open";
import { tellBrief } from "../events/briefEvents";
import { findBrief } from "../queries/briefs";
import { insertDecision } from "../queries/rounds";
import {
  countAnswers,
  findShare,
  findShareByToken,
  insertAnswer,
  insertShare,
  listAnswers,
  listShares,
  setShareEnded,
  type SharedFace,
  type StoredShare,
} from "../queries/shares";
import { findStyle, type StyleRecord } from "../queries/styles";
import { makeWebFontsInWorker } from "../workers/pool";
import { storedAs } from "./styleDetail";
import { mayBeCut } from "./webkit";

const DAY_MS = 86_400_000;
/** Answers that one link takes: more are sent by no client. */
const MAX_ANSWERS = 500;

const isOpen = ({ endedAt, expiresAt }: StoredShare) => endedAt === null && Date.parse(expiresAt) > Date.now();
const nameOf = ({ family, style }: Pick<StyleRecord, "family" | "style">) => `${family} ${style}`;

/** @param origin - of the server as whoever asks reached it. */
const describe = (db: Db, origin: string, share: StoredShare): Share => ({
  shareId: share.shareId,
  briefId: share.briefId,
  url: `${origin}/shared/${share.token}`,
  styleIds: share.faces.map((f) => f.styleId),
  mayComment: share.mayComment,
  createdAt: share.createdAt,
  expiresAt: share.expiresAt,
  isOpen: isOpen(share),
  answers: listAnswers(db, share.shareId),
});

/** What is kept, or styles that are named; only faces whose file is here can be shown. */
function chooseFaces(db: Db, brief: Brief, asked: ShareCreate["styleIds"]): Outcome<SharedFace[]> {
  const kept = brief.kept.map(({ styleId, location, features }): SharedFace => ({ styleId, location, features }));
  const faces = asked
    ? [...new Set(asked)].map((id) => kept.find((k) => k.styleId === id) ?? { styleId: id, location: {}, features: {} })
    : kept.slice(0, SHARED_AT_MOST);
  if (!faces.length) return refuse("nothing-kept");
  const records = faces.map((f) => findStyle(db, f.styleId));
  if (records.includes(null)) return refuse("not-found");
  const owned = faces.filter((_, i) => records[i]!.owned);
  return owned.length ? succeed(owned) : refuse("not-owned");
}

export function createShare(db: Db, briefId: string, asked: ShareCreate, by: string, origin: string): Outcome<Share> {
  const brief = findBrief(db, briefId);
  if (!brief) return refuse("not-found");
  const faces = chooseFaces(db, brief, asked.styleIds);
  if (!faces.ok) return faces;
  const now = new Date();
  const share: StoredShare = {
    shareId: `h_${randomBytes(8).toString("hex")}` as ShareId,
    briefId: brief.briefId,
    token: randomBytes(24).toString("base64url"),
    faces: faces.value,
    mayComment: asked.mayComment,
    createdAt: now.toISOString(),
    expiresAt: new Date(now.getTime() + asked.days * DAY_MS).toISOString(),
    endedAt: null,
  };
  db.transaction(() => {
    insertShare(db, share);
    const count = share.faces.length;
    insertDecision(db, briefId, {
      at: share.createdAt,
      by,
      says: `Shown to the client: ${count} ${count === 1 ? "face" : "faces"}, until ${new Date(share.expiresAt).toLocaleDateString("en-GB", { dateStyle: "long" })}.`,
    });
  })();
  return succeed(describe(db, origin, share));
}

export function getShare(db: Db, shareId: string, origin: string): Share | null {
  const share = findShare(db, shareId);
  return share && describe(db, origin, share);
}

export const listBriefShares = (db: Db, briefId: string, origin: string): Share[] =>
  listShares(db, briefId).map((share) => describe(db, origin, share));

export function endShare(db: Db, shareId: string, by: string, origin: string): Share | null {
  const share = findShare(db, shareId);
  if (!share) return null;
  const at = new Date().toISOString();
  if (isOpen(share) && setShareEnded(db, shareId, at))
    insertDecision(db, share.briefId, { at, by, says: "The client’s link was ended." });
  return describe(db, origin, findShare(db, shareId)!);
}

/** A link that is still open, with its brief. @returns not-found for a wrong token, share-ended for one that is over. */
export function openShare(db: Db, token: string): Outcome<{ share: StoredShare; brief: Brief }> {
  const share = findShareByToken(db, token);
  const brief = share && findBrief(db, share.briefId);
  if (!share) return refuse("not-found");
  if (!brief || !isOpen(share)) return refuse("share-ended");
  return succeed({ share, brief });
}

/** An answer goes into the log of decisions, and whoever looks at the brief sees it at once. */
export function answerShare(db: Db, token: string, answer: ShareAnswerPost): Outcome<ShareAnswer> {
  const opened = openShare(db, token);
  if (!opened.ok) return opened;
  const { share, brief } = opened.value;
  const record = findStyle(db, answer.styleId);
  if (!record || !share.faces.some((f) => f.styleId === answer.styleId))
    return refuse("bad-request", "This face is not among those that are shown.");
  const comment = share.mayComment && answer.comment ? answer.comment : undefined;
  if (!answer.chosen && !comment) return refuse("bad-request", "Choose a face, or write a line about it.");
  if (countAnswers(db, share.shareId) >= MAX_ANSWERS) return refuse("answers-too-many");
  const stored: ShareAnswer = {
    name: answer.name,
    styleId: answer.styleId,
    ...(answer.chosen !== undefined && { chosen: answer.chosen }),
    ...(comment !== undefined && { comment }),
    at: new Date().toISOString(),
  };
  const said = comment ? `: “${comment}”` : ".";
  db.transaction(() => {
    insertAnswer(db, share.shareId, stored);
    const says = answer.chosen ? `Chose ${nameOf(record)}${said}` : `On ${nameOf(record)}${said}`;
    insertDecision(db, share.briefId, { at: stored.at, by: `${answer.name} (client)`, says });
  })();
  tellBrief(share.briefId, { version: brief.version, by: "client", fields: ["answers"] });
  return succeed(stored);
}

/** Fonts as they were cut last: a page asks for each of them, and the next visitor for the same. */
const cutFonts = new LRUCache<string, Promise<Outcome<Uint8Array>>>({ max: 120 });

/** One file of a shared face, cut to the characters of the brief. @param file - 0 is its main one. */
export async function fontOfShare(db: Db, token: string, place: number, file: number): Promise<Outcome<Uint8Array>> {
  const opened = openShare(db, token);
  if (!opened.ok) return opened;
  const { share, brief } = opened.value;
  const record = share.faces[place] && findStyle(db, share.faces[place].styleId);
  if (!record?.owned) return refuse("not-found");
  const codePoints = charactersOf(brief).map((c) => c.codePointAt(0)!);
  const sfntSha256 = storedAs(db, record).sfntSha256s[file];
  if (!sfntSha256) return refuse("not-found");
  const key = `${sfntSha256} ${codePoints.join()}`;
  let made = cutFonts.get(key);
  if (!made) {
    // Whoever asked first may leave: others wait for the same file.
    made = makeWebFontsInWorker({
      sfntSha256s: [sfntSha256],
      codePoints: mayBeCut(record) ? codePoints : null,
      held: {},
      formats: ["woff2"],
      calledInside: "Preview",
    }).then((fonts) => {
      const bytes = fonts.ok ? fonts.value[0]?.files.woff2 : undefined;
      return bytes ? succeed(bytes) : fonts.ok ? refuse("not-found") : fonts;
    });
    cutFonts.set(key, made);
    // What failed is tried again at the next request.
    void made.then(({ ok }) => ok || cutFonts.delete(key)).catch(() => cutFonts.delete(key));
  }
  return made;
}
