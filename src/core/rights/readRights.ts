// Reads what may be done with a style out of the texts that came with it. Works on evidence alone; a reading aid, not legal advice.
import { USES, VERDICTS, type Use, type Verdict } from "@/contracts/traits";
import type { Evidence, Quote, Rights } from "@/contracts/rights";
import { KNOWN_LICENCES, type KnownLicence } from "./licences";

/** Kinds of evidence that can carry terms, most trusted first. A bare copyright line never clears anything. */
const TRUST: Evidence["kind"][] = ["licence-file", "readme", "name-table", "library", "user", "fs-type"];

/**
 * Reads the rights of a style.
 * @param evidence - every text found; all are kept in the record.
 * @returns a verdict for each use. Recognised licence: its rules, each with the quoted sentence. Text with terms that are
 *   not recognised: ask-maker, quoting its first sentence. Nothing: unread.
 */
export function readRights(evidence: Evidence[]): Rights {
  const ordered = [...evidence].sort((a, b) => TRUST.indexOf(a.kind) - TRUST.indexOf(b.kind));
  for (const item of ordered) {
    const licence = KNOWN_LICENCES.find((l) => l.marks.some((m) => m.test(item.text)));
    if (licence) return { spdx: licence.spdx, verdicts: judgeBy(licence, item), evidence: ordered };
  }
  const terms = ordered.find((e) => ["licence-file", "readme", "library", "user"].includes(e.kind) && e.text.trim());
  const all = (verdict: Verdict, quotes: Quote[]) =>
    Object.fromEntries(USES.map((use) => [use, { verdict, quotes }])) as Rights["verdicts"];
  if (!terms) return { verdicts: all("unread", []), evidence: ordered };
  const first = sentencesOf(terms.text)[0];
  const quotes = first ? [{ text: first.text, source: terms.source, place: `line ${first.line}` }] : [];
  return { verdicts: all("ask-maker", quotes), evidence: ordered };
}

function judgeBy(licence: KnownLicence, item: Evidence): Rights["verdicts"] {
  const sentences = sentencesOf(item.text);
  const verdicts = Object.fromEntries(
    USES.map((use) => [use, { verdict: "unread" as Verdict, quotes: [] as Quote[] }]),
  );
  for (const rule of licence.rules) {
    // The alternatives of a rule are ordered: the strongest wording that stands in the text is quoted.
    const wordings = rule.sentence.source.split("|").map((w) => new RegExp(w, "i"));
    const found = wordings.map((w) => sentences.find((s) => w.test(s.text))).find(Boolean);
    for (const use of rule.uses)
      verdicts[use] = found
        ? { verdict: rule.verdict, quotes: [{ text: found.text, source: item.source, place: `line ${found.line}` }] }
        : { verdict: "ask-maker", quotes: [] };
  }
  return verdicts as Rights["verdicts"];
}

/** Sentences of a text with the line each begins in. White space is folded; the words stay as written. */
export function sentencesOf(text: string): { text: string; line: number }[] {
  const out: { text: string; line: number }[] = [];
  let line = 1;
  for (const paragraph of text.split(/(\n\s*\n)/)) {
    let at = line;
    for (const part of paragraph.match(/[^.;:]+(?:[.;:](?!\s)[^.;:]*)*[.;:]?\s*/g) ?? []) {
      const leading = part.match(/^\s*/)![0].split("\n").length - 1;
      const clean = part.replace(/\s+/g, " ").trim();
      if (clean.length > 2) out.push({ text: clean, line: at + leading });
      at += part.split("\n").length - 1;
    }
    line += paragraph.split("\n").length - 1;
  }
  return out;
}

/** The verdicts of a record without their quotes. */
export const verdictsOf = (rights: Rights): Partial<Record<Use, Verdict>> =>
  Object.fromEntries(Object.entries(rights.verdicts).map(([use, v]) => [use, v.verdict]));

/** The verdict for several uses at once: the strictest of theirs. No uses: as for private use. */
export function strictestVerdict(verdicts: Partial<Record<Use, Verdict>>, uses: readonly Use[]): Verdict {
  const asked = uses.length ? uses : (["private"] as const);
  const ranks = asked.map((use) => VERDICTS.indexOf(verdicts[use] ?? "unread"));
  return VERDICTS[Math.max(...ranks)]!;
}
