// Worker entry: asks libraries for people who wait. What a library answers is a stranger's bytes, so it is read here.
import type { Outcome } from "@/contracts/errors";
import { connectorOf } from "../libraries/connect";
import type { Page, SetLine } from "../libraries/connector";
import { refuse } from "@/contracts/errors";

type Library = { kind: string; url: string };
export type LibraryRequest =
  | { what: "firstPage"; library: Library }
  | { what: "search"; library: Library; words: string }
  | { what: "setLine"; library: Library; settingUrl: string; text: string };
type Asked<W extends LibraryRequest["what"]> = Extract<LibraryRequest, { what: W }>;
type Told = Pick<Page, "title" | "total" | "publications">;
type Replies = { firstPage: Outcome<Told>; search: Outcome<Told>; setLine: Outcome<SetLine> };
export type LibraryReply<R extends LibraryRequest> = Replies[R["what"]];

export async function firstPage({ library }: Asked<"firstPage">, signal: AbortSignal): Promise<Outcome<Told>> {
  return connectorOf(library)!.page(null, signal);
}

export async function search({ library, words }: Asked<"search">, signal: AbortSignal): Promise<Outcome<Told>> {
  const connector = connectorOf(library);
  if (!connector?.search) return refuse("library-refused", "This library cannot be searched.");
  return connector.search(words, signal);
}

export async function setLine(asked: Asked<"setLine">, signal: AbortSignal): Promise<Outcome<SetLine>> {
  const connector = connectorOf(asked.library);
  return connector?.setLine ? connector.setLine(asked.settingUrl, asked.text, signal) : refuse("not-found");
}
