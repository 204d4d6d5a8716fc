// Asking people: the question sheet of a kept identification, the question left at the desk, and what came of it.
import { randomBytes } from "node:crypto";
import type { IdentifyMatch } from "@/contracts/identify";
import type { SavedIdentification } from "@/contracts/identifications";
import type { PeopleQuestion, PeopleState, QuestionId, SheetKind } from "@/contracts/people";
import { refuse, succeed, type Outcome } from "@/contracts/errors";
import type { Db } from "../db/open";
import { readStored } from "../db/fileStore";
import { writeQuestionSheetInWorker } from "../workers/pool";
import { askAfter, deskUrl, leaveQuestion, withdraw } from "../libraries/desk";
import { findBrief } from "../queries/briefs";
import { findIdentification, type StoredIdentification } from "../queries/identifications";
import { addAnswers, findQuestion, insertQuestion, setQuestionState } from "../queries/people";
import { readLabels } from "./labels";

const NEAREST_TOLD = 5;
/** Letters that agree less than this are named as what speaks against a face. */
const DISAGREES = 0.8;

const percent = (share: number) => `${Math.round(share * 100)} %`;
const nameOf = (m: Pick<IdentifyMatch, "family" | "style">) => `${m.family} ${m.style}`;

/** The letter that speaks most against a match, or why the picture cannot tell. */
export function writeWhy(match: IdentifyMatch): string {
  const { besideFirst } = match;
  if (besideFirst?.isSameHere)
    return `The same in these letters as the first${besideFirst.tellingLetter ? `; ${besideFirst.tellingLetter} would tell` : ""}.`;
  const worst = [...match.letters].sort((a, b) => a.agreement - b.agreement)[0];
  if (!worst) return "";
  return worst.agreement < DISAGREES
    ? `Its ${worst.char} speaks most against it (${percent(worst.agreement)}).`
    : "No letter speaks against it.";
}

/** What was tried, in sentences. */
export function writeTried({ state }: Pick<SavedIdentification, "state">): string[] {
  const { result, isTyped, corners, baseline, ink } = state;
  const { reading, compared, notInLibraries, strip } = result;
  const cut = strip.cut === "letters" ? "letter by letter" : "as a whole: its letters could not be parted";
  return [
    `${isTyped || reading.given ? "The words were typed." : `The words were read by machine (${percent(reading.confidence)} sure).`} The line was compared ${cut}.`,
    ...(baseline ? ["The lettering was taken off its curved baseline first."] : []),
    ...(corners ? ["The picture was straightened by its four corners first."] : []),
    ...(ink ? ["What is lettering in it was marked by hand."] : []),
    `${compared} styles were compared by the shape of their letters. Chance that it is none of them: ${percent(notInLibraries.chance)}.`,
  ];
}

/** Corners of what was asked about, in the picture's pixels. */
function framedOf({ corners, baseline, frame }: SavedIdentification["state"]): { x: number; y: number }[] | null {
  if (corners) return corners;
  if (baseline) return [...baseline, baseline[1]!];
  if (!frame) return null;
  const { x, y, width, height } = frame;
  return [
    { x, y },
    { x: x + width, y },
    { x: x + width, y: y + height },
    { x, y: y + height },
  ];
}

const titleOf = (i: SavedIdentification) => `Which face is this? “${i.text}”`;

async function writeSheet(
  saved: StoredIdentification,
  kind: SheetKind,
  signal?: AbortSignal,
): Promise<Outcome<Uint8Array>> {
  const { state } = saved;
  const { strip, reading, matches } = state.result;
  const request = {
    kind,
    title: titleOf(saved),
    subtitle: `${saved.name} · ${saved.savedAt.slice(0, 10)}`,
    picture: readStored(saved.sha256),
    framed: framedOf(state),
    strip: new Uint8Array(Buffer.from(strip.png.replace(/^data:image\/png;base64,/, ""), "base64")),
    letters: strip.cut === "letters" ? reading.letters : [],
    readAs: saved.text,
    tried: writeTried(saved),
    nearest: matches.slice(0, NEAREST_TOLD).map((m) => ({
      name: nameOf(m),
      agreement: m.score,
      why: writeWhy(m),
      overlayPath: m.overlay.path,
    })),
    ...(await readLabels()),
  };
  return writeQuestionSheetInWorker(request, signal);
}

/** The sheet to be sent by hand. */
export async function writeQuestionSheetFor(
  db: Db,
  briefId: string,
  identificationId: string,
  kind: SheetKind,
  signal?: AbortSignal,
): Promise<Outcome<{ bytes: Uint8Array; name: string }>> {
  const saved = findIdentification(db, briefId, identificationId);
  if (!saved) return refuse("not-found");
  const sheet = await writeSheet(saved, kind, signal);
  const name = `Which face is this - ${saved.text.slice(0, 60)}.${kind}`;
  return sheet.ok ? succeed({ bytes: sheet.value, name }) : sheet;
}

/** Leaves a question at the desk. One that could not be sent before is sent again; one that waits stays as it is. */
export async function askPeople(db: Db, briefId: string, identificationId: string): Promise<Outcome<PeopleState>> {
  const saved = findIdentification(db, briefId, identificationId);
  if (!saved) return refuse("not-found");
  const desk = deskUrl();
  if (!desk) return refuse("no-desk");
  const before = findQuestion(db, identificationId);
  if (before?.state === "waiting") return succeed({ hasDesk: true, question: before });
  const questionId = (before?.state === "not-sent" ? before.questionId : newId()) as QuestionId;
  // Kept before it is sent: what fails on the way can be sent again.
  if (before?.state !== "not-sent") insertQuestion(db, questionId, identificationId, new Date().toISOString());
  const pdf = await writeSheet(saved, "pdf");
  if (!pdf.ok) {
    setQuestionState(db, questionId, "not-sent", pdf.message);
    return succeed({ hasDesk: true, question: findQuestion(db, identificationId) });
  }
  const left = await leaveQuestion(desk, {
    questionId,
    title: titleOf(saved),
    readAs: saved.text,
    nearest: saved.state.result.matches
      .slice(0, NEAREST_TOLD)
      .map(({ family, style, score }) => ({ family, style, agreement: score })),
    sheet: { type: "application/pdf", base64: Buffer.from(pdf.value).toString("base64") },
  });
  setQuestionState(db, questionId, left.ok ? "waiting" : "not-sent", left.ok ? null : left.message);
  return succeed({ hasDesk: true, question: findQuestion(db, identificationId) });
}

const newId = () => `q_${randomBytes(8).toString("hex")}`;

/** Questions that are being asked after, so that two windows do not ask twice at once. */
const asking = new Map<string, Promise<void>>();

/** How a question stands. One that waits is asked after at the desk first. */
export async function getPeople(db: Db, briefId: string, identificationId: string): Promise<PeopleState | null> {
  if (!findBrief(db, briefId) || !findIdentification(db, briefId, identificationId)) return null;
  const desk = deskUrl();
  const question = findQuestion(db, identificationId);
  if (desk && question?.state === "waiting") {
    const { questionId } = question;
    if (!asking.has(questionId))
      asking.set(
        questionId,
        refresh(db, desk, question).finally(() => asking.delete(questionId)),
      );
    await asking.get(questionId);
  }
  return { hasDesk: desk !== null, question: findQuestion(db, identificationId) };
}

async function refresh(db: Db, desk: string, { questionId }: PeopleQuestion): Promise<void> {
  const reply = await askAfter(desk, questionId);
  if (!reply.ok) return void setQuestionState(db, questionId, "waiting", reply.message);
  addAnswers(db, questionId, reply.value.answers);
  setQuestionState(db, questionId, reply.value.state === "closed" ? "closed" : "waiting", null);
}

/** Takes a question back. Answers that came stay in the store; the desk is told, if it can be. */
export async function withdrawQuestion(db: Db, briefId: string, identificationId: string): Promise<PeopleState | null> {
  if (!findIdentification(db, briefId, identificationId)) return null;
  const question = findQuestion(db, identificationId);
  const desk = deskUrl();
  if (question) {
    setQuestionState(db, question.questionId, "withdrawn", null);
    if (desk) await withdraw(desk, question.questionId);
  }
  return { hasDesk: desk !== null, question: findQuestion(db, identificationId) };
}
