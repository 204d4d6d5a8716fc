// The desk of other designers, asked over HTTP: a question is left there, and answers come when somebody has some.
import { DeskReply, type DeskQuestion } from "@/contracts/people";
import type { Outcome } from "@/contracts/errors";
import { ask, readForm, type Asking, type Spoken } from "./http";

/** Answers are a few lines of text. */
const MAX_REPLY_BYTES = 1024 * 1024;

/** Address of the desk; null where none is connected. */
export function deskUrl(): string | null {
  return process.env.FOND_QUARRY_DESK || null;
}

/** Leaves a question. The same question left again is the same question. */
export const leaveQuestion = (desk: string, question: DeskQuestion): Promise<Outcome<DeskReply>> =>
  call(`${desk}/questions`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify(question),
  });

export const askAfter = (desk: string, questionId: string): Promise<Outcome<DeskReply>> =>
  call(`${desk}/questions/${questionId}`);

export const withdraw = (desk: string, questionId: string): Promise<Outcome<DeskReply>> =>
  call(`${desk}/questions/${questionId}`, { method: "DELETE" });

const call = async (url: string, init: Asking = {}): Promise<Outcome<DeskReply>> =>
  readForm(await ask(url, { ...init, limitBytes: MAX_REPLY_BYTES }), DeskReply, DESK);

/** What went wrong on the way, said of a desk. */
const DESK: Spoken = {
  code: "desk-silent",
  sentences: {
    "library-unreachable": "The desk does not answer.",
    "library-slow": "The desk took too long to answer.",
    "library-broken": "The desk answered with an error.",
    "library-refused": "The desk refused the question.",
    "rate-limited": "The desk asks to wait before the next question.",
  },
  unread: "The desk answered with something that cannot be read.",
};
