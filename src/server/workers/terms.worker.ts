// Worker entry: texts that came with fonts → evidence, and evidence → rights. A text that takes too long is told as unread by the caller.
import type { Evidence, Rights } from "@/contracts/rights";
import { keepReadTexts, readRights, type SameLetters } from "@/core/rights/readRights";
import { readTerms, type FoundText } from "../intake/evidence";

export type TermsRequest =
  | { what: "texts"; files: { path: string; bytes: Uint8Array }[]; date: string }
  | { what: "rights"; evidence: Evidence[]; sameLetters?: SameLetters[] };
type Asked<W extends TermsRequest["what"]> = Extract<TermsRequest, { what: W }>;
type Replies = { texts: FoundText[]; rights: Rights };
export type TermsReply<R extends TermsRequest> = Replies[R["what"]];

export const texts = ({ files, date }: Asked<"texts">): FoundText[] =>
  files.map(({ path, bytes }) => readTerms(path, bytes, date));

const readTexts = keepReadTexts();

export const rights = ({ evidence, sameLetters = [] }: Asked<"rights">): Rights =>
  readRights(evidence, sameLetters, readTexts);
