// Reads what may be done with a style out of the texts that came with it. Works on evidence alone; a reading aid, not legal advice.
import { USES, VERDICTS, type Use, type Verdict } from "@/contracts/traits";
import type { Evidence, Quote, Rights } from "@/contracts/rights";
import { rulesOf } from "./licences";
import { findMentions, FONT_EXCEPTION } from "./mentions";
import { recogniseLicence } from "./similarity";
import { statementsOf, type Statement } from "./statements";
import { readWording, type Breadth, type Claim, type WordingRead } from "./wording";

/** Kinds of evidence, most trusted first: the order in which they are listed and quoted. */
const TRUST: Evidence["kind"][] = ["receipt", "licence-file", "readme", "name-table", "fs-type", "library", "user"];

/** What one text says of one use. A weak one follows from the text's silence, not from its words. */
type Said = { verdict: Verdict; quotes: Quote[]; isWeak: boolean };
type ItemRead = { item: Evidence; spdx: string | null; said: Partial<Record<Use, Said>> };

/**
 * Reads the rights of a style.
 * @param evidence - every text found; all are kept in the record.
 * @returns a verdict for each use with the sentences it rests on. Where texts contradict one another the stricter holds, and
 *   the contradiction is listed. A receipt lifts what had to be bought or asked for. No evidence: unread, never cleared.
 */
export function readRights(evidence: Evidence[]): Rights {
  const ordered = [...evidence].sort((a, b) => TRUST.indexOf(a.kind) - TRUST.indexOf(b.kind));
  const read = ordered.map(readItem);
  const receipts = read.filter((r) => r.item.kind === "receipt");
  const others = read.filter((r) => r.item.kind !== "receipt");
  const verdicts: Partial<Rights["verdicts"]> = {};
  const contradictions: NonNullable<Rights["contradictions"]> = [];
  for (const use of USES) {
    const bought = receipts
      .map((r) => r.said[use])
      .filter((s): s is Said => Boolean(s && !s.isWeak && opens(s.verdict)));
    const { held, against } = settle(others, use);
    if (bought.length) verdicts[use] = { verdict: strictest(bought).verdict, quotes: quotesOf(bought) };
    else {
      verdicts[use] = held;
      if (against.length) contradictions.push({ use, held: held.verdict, others: against });
    }
  }
  const spdx = others.find((r) => r.spdx)?.spdx;
  return {
    ...(spdx && { spdx }),
    verdicts: verdicts as Rights["verdicts"],
    evidence: ordered,
    ...(contradictions.length && { contradictions }),
  };
}

const opens = (v: Verdict) => v === "cleared" || v === "cleared-with-credit";
const rank = (v: Verdict) => VERDICTS.indexOf(v);
const strictest = (list: Said[]): Said => list.reduce((a, b) => (rank(b.verdict) > rank(a.verdict) ? b : a));
const quotesOf = (list: Said[]): Quote[] => list.flatMap((s) => s.quotes).slice(0, 4);

/** One use over all texts: words count before silence, the strictest words hold. */
function settle(reads: ItemRead[], use: Use) {
  const said = reads.map((r) => r.said[use]).filter((s): s is Said => Boolean(s));
  const strong = said.filter((s) => !s.isWeak);
  if (!strong.length) {
    const weak = said[0];
    return {
      held: weak ? { verdict: weak.verdict, quotes: weak.quotes } : { verdict: "unread" as Verdict, quotes: [] },
      against: [],
    };
  }
  const { verdict } = strictest(strong);
  const holding = strong.filter((s) => s.verdict === verdict);
  // "With credit" beside "cleared" is a condition, not a contradiction.
  const against = opens(verdict) ? [] : strong.filter((s) => opens(s.verdict));
  return {
    held: { verdict, quotes: quotesOf(holding) },
    against: against.map((s) => ({ verdict: s.verdict, quotes: s.quotes })),
  };
}

/** The last texts read: the styles of a family come with the same one. */
const lately = new Map<string, ItemRead>();
const KEPT = 48;
function readItem(item: Evidence): ItemRead {
  const key = `${item.kind}\n${item.source}\n${item.text}`;
  const known = lately.get(key);
  if (known) return { ...known, item };
  const read = readItemAnew(item);
  lately.set(key, read);
  if (lately.size > KEPT) lately.delete(lately.keys().next().value!);
  return read;
}

function readItemAnew(item: Evidence): ItemRead {
  if (item.kind === "fs-type") return { item, spdx: null, said: readFsType(item) };
  const statements = statementsOf(item.text);
  const whole = recogniseLicence(item.text);
  const { mentions, denied } = whole ? { mentions: [], denied: [] } : findMentions(statements, isField(item));
  const spdx = whole?.spdx ?? mentions[0]?.spdx ?? null;
  const own = statements.filter((s) => !whole?.isStandard(s.text) && !FONT_EXCEPTION.test(s.text));
  const read = readWording(own, item.kind === "library");
  // What a receipt says of prices is past: they were paid.
  if (item.kind === "receipt") read.claims = read.claims.filter((c) => c.verdict !== "buy-first");
  const said: ItemRead["said"] = {};
  const licences = whole ? [whole.spdx] : [...new Set(mentions.map((m) => m.spdx))];
  for (const id of licences)
    mergeLicence(said, id, item, statements, mentions.find((m) => m.spdx === id)?.statement ?? null);
  mergeWording(said, read, item, licences.length > 0);
  if (!licences.length) fillSilence(said, read, item, denied[0] ?? null);
  return { item, spdx, said };
}

/** A field of its own rather than a running text. */
const isField = (item: Evidence) => item.kind === "name-table" || item.kind === "library" || item.text.length < 60;

const quoteOf = (item: Evidence, s: Statement): Quote => ({
  text: s.text,
  source: item.source,
  place: `line ${s.line}`,
});

function mergeLicence(
  said: ItemRead["said"],
  spdx: string,
  item: Evidence,
  statements: Statement[],
  mention: Statement | null,
) {
  const rules = rulesOf(spdx);
  for (const rule of rules ?? [{ uses: USES, verdict: "ask-maker" as const, sentence: /./ }]) {
    // The alternatives of a rule are ordered: the strongest wording that stands in the text is quoted.
    const wordings = alternatives(rule.sentence);
    const found = mention ?? wordings.map((w) => statements.find((s) => w.test(s.text))).find(Boolean) ?? statements[0];
    if (!found) continue;
    for (const use of rule.uses) {
      const next: Said = { verdict: rule.verdict, quotes: [quoteOf(item, found)], isWeak: false };
      const before = said[use];
      // Two licences to choose from: the freer one may be taken. Named apart, they are offered, not added.
      said[use] = before && rank(before.verdict) < rank(next.verdict) ? before : next;
    }
  }
}
const alternatives = (r: RegExp) => r.source.split(/\|(?![^(]*\))/).map((w) => new RegExp(w, "i"));

/** What the free wording says; beside a recognised licence only what is stricter counts. */
function mergeWording(said: ItemRead["said"], read: WordingRead, item: Evidence, hasLicence: boolean) {
  for (const use of USES) {
    const claim = nearestClaim(read.claims.filter((c) => c.use === use));
    if (!claim) continue;
    const next = withConditions(claim, use, read, item);
    const before = said[use];
    if (!hasLicence || (before && rank(next.verdict) > rank(before.verdict) && !opens(next.verdict))) said[use] = next;
  }
}

/** The most particular claim; of equals the strictest. */
function nearestClaim(claims: Claim[]): Claim | null {
  const of = (breadth: Breadth) => claims.filter((c) => c.breadth === breadth);
  const strictestOf = (list: Claim[]) =>
    list.length ? list.reduce((a, b) => (rank(b.verdict) > rank(a.verdict) ? b : a)) : null;
  const commercial = of("commercial");
  // "Only private" outweighs a freedom told elsewhere, yet not the way that is shown to a licence.
  return (
    strictestOf(of("named")) ??
    strictestOf(commercial.filter((c) => !opens(c.verdict))) ??
    strictestOf(of("only")) ??
    strictestOf(commercial) ??
    strictestOf(of("any")) ??
    strictestOf(of("implied"))
  );
}

function withConditions(claim: Claim, use: Use, read: WordingRead, item: Evidence): Said {
  const quotes = [quoteOf(item, claim.statement)];
  const add = (s: Statement) => {
    if (s !== claim.statement) quotes.push(quoteOf(item, s));
  };
  if (claim.verdict !== "cleared") return { verdict: claim.verdict, quotes, isWeak: false };
  if ((use === "web" || use === "app") && read.noPassingOn && claim.breadth !== "named") {
    add(read.noPassingOn);
    return { verdict: "ask-maker", quotes, isWeak: false };
  }
  if (!read.credit) return { verdict: "cleared", quotes, isWeak: false };
  add(read.credit);
  return { verdict: "cleared-with-credit", quotes, isWeak: false };
}

/** Uses of which a text with terms says nothing: the maker has to be asked. A text without terms says nothing at all. */
function fillSilence(said: ItemRead["said"], read: WordingRead, item: Evidence, denied: Statement | null) {
  const first = denied ?? read.aboutTerms;
  // Copyright and trade mark strings of the font are no terms.
  if (!first || (item.kind === "name-table" && /name (?:0|7)\b/.test(item.source))) return;
  for (const use of USES) said[use] ??= { verdict: "ask-maker", quotes: [quoteOf(item, first)], isWeak: true };
}

/** OS/2 fsType, bits 0–3: restricted embedding means that the file may not be passed on inside anything without permission. */
function readFsType(item: Evidence): ItemRead["said"] {
  const value = Number(item.text.match(/fsType\s+(\d+)/)?.[1] ?? 0);
  if ((value & 0xf) !== 2) return {};
  const quote = { text: item.text, source: item.source, place: "bits 0–3" };
  const said: Said = { verdict: "ask-maker", quotes: [quote], isWeak: false };
  return { web: said, app: said };
}
