// A cutting plotter, asked over HTTP: what it holds, and what it would cut of a file.
import { Plot, Plotter, type CutFormat } from "@/contracts/plotter";
import { refuse, type Outcome } from "@/contracts/errors";
import { LETTERING_FILES } from "@/contracts/operations/letterings";
import type { z } from "zod";
import { ask, readForm, type Asking, type Spoken } from "./http";

const MAX_REPLY_BYTES = 64 * 1024 * 1024;
/** What a plotter says is shown, but not at any length. */
const MOST_WORDS = 300;

/** Address of the plotter; null where none is connected. */
export function plotterUrl(): string | null {
  return process.env.FOND_QUARRY_PLOTTER || null;
}

export const askPlotter = (url: string, signal?: AbortSignal): Promise<Outcome<Plotter>> =>
  call(url, {}, Plotter, signal);

export const sendCutFile = (
  url: string,
  format: CutFormat,
  file: Uint8Array,
  signal?: AbortSignal,
): Promise<Outcome<Plot>> =>
  call(
    `${url}/plots`,
    {
      method: "POST",
      headers: { "content-type": LETTERING_FILES[format].type },
      body: new TextDecoder().decode(file),
    },
    Plot,
    signal,
  );

async function call<T>(
  url: string,
  init: Asking,
  form: z.ZodType<T>,
  signal: AbortSignal | undefined,
): Promise<Outcome<T>> {
  const answer = await ask(url, { ...init, limitBytes: MAX_REPLY_BYTES }, signal);
  if (!answer.ok && answer.code === "library-refused") {
    const said = (answer.details as { error?: { message?: unknown } } | undefined)?.error?.message;
    if (typeof said === "string") return refuse("plotter-refused", said.slice(0, MOST_WORDS));
  }
  return readForm(answer, form, PLOTTER);
}

/** What went wrong on the way, said of a plotter. */
const PLOTTER: Spoken = {
  code: "plotter-silent",
  sentences: {
    "library-slow": "The plotter took too long to answer. Nothing was sent twice: try again.",
    "library-broken": "The plotter answered with an error, so nothing is known of this file. Try again.",
  },
  unread: "The plotter answered with something that cannot be read.",
};
