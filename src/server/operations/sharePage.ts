// The page of a share, its fonts and its answers: outside the table of operations, with the token of the address as the only right.
import { refuse, type Outcome } from "@/contracts/errors";
import { ShareAnswerPost } from "@/contracts/share";
import { charactersOf } from "@/core/brief/characters";
import { levelFactor } from "@/core/brief/level";
import { hasCodePoint } from "@/core/unicode/blocks";
import { writeShareGone, writeSharePage, type SharedFaceView } from "@/core/write/sharePage";
import { isForeign, isOwnHost } from "../access/hosts";
import { bootFault } from "../db/bootFault";
import { getDb, type Db } from "../db/open";
import { listParts } from "../queries/parts";
import { findStyle } from "../queries/styles";
import { answerShare, fontOfShare, openShare } from "../usecases/shares";
import { refusal } from "./answers";
import { setLines } from "@/core/brief/words";
import { readJson } from "./body";

const MAX_ANSWER_BYTES = 16 * 1024;
const UNKEPT = { "cache-control": "no-store", "referrer-policy": "no-referrer", "x-content-type-options": "nosniff" };

/** The same guards as before every operation. */
function turnAway(request: Request): Response | null {
  if (!isOwnHost(request.headers.get("host"))) return refusal("foreign-host");
  const fault = bootFault();
  return fault ? refusal(fault) : null;
}

const html = (text: string, status: number) =>
  new Response(text, { status, headers: { "content-type": "text/html; charset=utf-8", ...UNKEPT } });

/** GET of the page. */
export function showShare(request: Request, token: string): Response {
  const refused = turnAway(request);
  if (refused) return refused;
  const db = getDb();
  const opened = openShare(db, token);
  if (!opened.ok)
    return opened.code === "not-found"
      ? html(writeShareGone("There is nothing at this address."), 404)
      : html(writeShareGone("This link has ended."), 410);
  const { share, brief } = opened.value;
  const needed = charactersOf(brief).map((c) => c.codePointAt(0)!);
  const lines = setLines(brief);
  const page = writeSharePage({
    title: brief.name,
    lines: lines.length ? lines : [brief.name],
    ink: brief.ink,
    paper: brief.paper,
    mayComment: share.mayComment,
    openUntil: new Date(share.expiresAt).toLocaleDateString("en-GB", { dateStyle: "long" }),
    path: `/shared/${token}`,
    nonce: request.headers.get("x-nonce") ?? "",
    faces: share.faces.flatMap((face, i): SharedFaceView[] => {
      const record = findStyle(db, face.styleId);
      if (!record) return [];
      const { family, style, traits } = record;
      const fonts = filesFor(db, record, needed).map((file) => `${i}-${file}.woff2`);
      return [{ ...face, family, name: `${family} ${style}`, fonts, level: levelFactor(traits, brief.levelBy) }];
    }),
  });
  return html(page, 200);
}

/** The main file of a face, and those of its parts that have some of the characters. */
function filesFor(db: Db, { styleId, parts }: { styleId: string; parts: number }, needed: readonly number[]): number[] {
  if (!parts) return [0];
  const has = listParts(db, styleId).flatMap(({ coverage }, i) =>
    needed.some((code) => hasCodePoint(coverage, code)) ? [i + 1] : [],
  );
  return [0, ...has];
}

/** GET of one of its fonts, by face and file. */
export async function sendShareFont(request: Request, token: string, name: string): Promise<Response> {
  const refused = turnAway(request);
  if (refused) return refused;
  const [, place, file] = /^(\d{1,3})-(\d{1,3})\.woff2$/.exec(name) ?? [];
  if (place === undefined) return refusal("not-found");
  return answerWith(
    await fontOfShare(getDb(), token, Number(place), Number(file)),
    (bytes) => new Response(bytes as BodyInit, { headers: { "content-type": "font/woff2", ...UNKEPT } }),
  );
}

/** POST of an answer. */
export async function takeShareAnswer(request: Request, token: string): Promise<Response> {
  const refused = turnAway(request) ?? (isForeign(request) ? refusal("foreign-origin") : null);
  if (refused) return refused;
  const sent = await readJson(request, MAX_ANSWER_BYTES);
  if (!sent.ok) return refusal(sent.code, sent.message);
  const answer = ShareAnswerPost.safeParse(sent.value);
  // A link that is over says so, whatever was sent.
  const unread = () => {
    const opened = openShare(getDb(), token);
    return opened.ok ? refuse("bad-request") : opened;
  };
  const outcome = answer.success ? answerShare(getDb(), token, answer.data) : unread();
  return answerWith(outcome, (value) => Response.json(value, { status: 201, headers: UNKEPT }));
}

const answerWith = <T>(outcome: Outcome<T>, write: (value: T) => Response): Response =>
  outcome.ok ? write(outcome.value) : refusal(outcome.code, outcome.message);
