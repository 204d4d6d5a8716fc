// Reads what may be done with a style out of the texts that came with it. Works on evidence alone; a reading aid, not legal advice.
import { LRUCache } from "lru-cache";
import { USES, VERDICTS, type Use, type Verdict } from "@/contracts/traits";
import type { Evidence, Quote, Rights } from "@/contracts/rights";
import { rulesOf } from "./licences";
import { findMentions, FONT_EXCEPTION } from "./mentions";
import { recogniseLicence } from "./similarity";
import { statementsOf, type Statement } from "./statements";
import { readWording, type Breadth, type Claim, type WordingRead } from "./wording";

/** Kinds of evidence, most trusted first: the order in which they are listed and quoted. */
const TRUST: Evidence["kind"][] = ["receipt", "licence-file", "name-table", "fs-type", "library", "readme", "user"];
const SPEAKERS: Record<Evidence["kind"], string> = {
  receipt: "your receipt",
  "licence-file": "the licence that came with it",
  "name-table": "the font file itself",
  "fs-type": "the font file itself",
  library: "the library that offers it",
  readme: "a readme",
  user: "what you added",
};

/** A style whose letters are the same: what its own terms say. */
export type SameLetters = {
  styleId: string;
  name: string;
  maker: string | null;
  isOtherMaker: boolean;
  /** A library sells it. */
  isSold: boolean;
  verdicts: Partial<Record<Use, Verdict>>;
};

type Held = Rights["verdicts"][Use];
/** What one text says of one use. A weak one follows from the text's silence, not from its words. */
type Said = { verdict: Verdict; quotes: Quote[]; isWeak: boolean };
type ItemRead = {
  item: Evidence;
  spdx: string | null;
  said: Partial<Record<Use, Said>>;
  notes: NonNullable<Rights["notes"]>;
};

/**
 * Reads the rights of a style.
 * @param evidence - every text found; all are kept in the record.
 * @param sameLetters - styles with the same letters. Their terms clear nothing here; stricter ones close what only third hands opened.
 * @param readTexts - what was read of texts before, for callers that read many styles.
 * @returns a verdict for each use with the sentences it rests on. Where texts contradict one another the stricter holds, and
 *   the contradiction is listed. A receipt lifts what had to be bought or asked for. No evidence: unread, never cleared.
 */
export function readRights(
  evidence: Evidence[],
  sameLetters: readonly SameLetters[] = [],
  readTexts?: ReadTexts,
): Rights {
  const ordered = [...evidence].sort((a, b) => TRUST.indexOf(a.kind) - TRUST.indexOf(b.kind));
  const read = ordered.map((item) => readItem(item, readTexts));
  const receipts = read.filter((r) => r.item.kind === "receipt");
  const others = read.filter((r) => r.item.kind !== "receipt");
  const verdicts: Partial<Rights["verdicts"]> = {};
  /** What its own evidence says, before what is said of the same letters. */
  const own: Partial<Record<Use, Verdict>> = {};
  const contradictions: NonNullable<Rights["contradictions"]> = [];
  for (const use of USES) {
    const bought = receipts
      .map((r) => r.said[use])
      .filter((s): s is Said => Boolean(s && !s.isWeak && opens(s.verdict)));
    const { held, against, ...decided } = settle(others, use);
    if (bought.length) verdicts[use] = { verdict: strictest(bought).verdict, quotes: quotesOf(bought) };
    else {
      verdicts[use] = held;
      if (against.length) contradictions.push({ use, held: held.verdict, others: against, ...decided });
    }
    own[use] = verdicts[use].verdict;
    if (opens(verdicts[use].verdict) && !bought.length)
      verdicts[use] = closeForLetters(use, verdicts[use], others, sameLetters);
  }
  const notes = read.flatMap((r) => r.notes);
  const spdx = others.find((r) => r.spdx)?.spdx;
  return {
    ...(spdx && { spdx }),
    verdicts: verdicts as Rights["verdicts"],
    evidence: ordered,
    ...(contradictions.length && { contradictions }),
    ...(sameLetters.length && { sameLetters: sameLetters.map((other) => tellLetters(other, own)) }),
    ...(notes.length && { notes }),
  };
}

const byWhom = ({ maker, isSold }: SameLetters) => (maker ? (isSold ? `, sold by ${maker}` : ` by ${maker}`) : "");

/** What is closed for a style with the same letters and stricter terms, unless the font itself or the user opens it. */
function closeForLetters(use: Use, held: Held, reads: ItemRead[], sameLetters: readonly SameLetters[]): Held {
  const opened = reads.some(
    ({ item, said }) => (item.kind === "name-table" || item.kind === "user") && said[use] && opens(said[use].verdict),
  );
  const stricter = sameLetters.find((o) => isStricter(o.verdicts[use]));
  if (opened || !stricter) return held;
  const text = `The letters are those of ${stricter.name}${byWhom(stricter)}: ask before you use it.`;
  return {
    verdict: "ask-maker",
    quotes: [{ text, source: "comparison of outlines", place: stricter.name }, ...held.quotes],
  };
}
const isStricter = (v: Verdict | undefined) => v !== undefined && v !== "unread" && !opens(v);

function tellLetters(
  other: SameLetters,
  own: Partial<Record<Use, Verdict>>,
): NonNullable<Rights["sameLetters"]>[number] {
  const differs = USES.some((u) => opens(other.verdicts[u] ?? "unread") !== opens(own[u] ?? "unread"));
  const whose = `The letters are those of ${other.name}${byWhom(other)}`;
  const says = differs
    ? `${whose}, whose terms differ: ask before you use it.`
    : other.isOtherMaker
      ? `${whose}. Each stands under its own terms.`
      : `${whose}.`;
  return { styleId: other.styleId, name: other.name, maker: other.maker, says };
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
  const by = reads.find((r) => r.said[use] && holding.includes(r.said[use]))!.item;
  return {
    held: { verdict, quotes: quotesOf(holding) },
    decidedBy: by.source,
    why: `The stricter text holds; it is ${SPEAKERS[by.kind]}.`,
    against: against.map((s) => ({ verdict: s.verdict, quotes: s.quotes })),
  };
}

/** Texts read lately: the styles of a family come with the same one. Held by the caller. */
type ReadTexts = LRUCache<string, ItemRead>;
export const keepReadTexts = (): ReadTexts => new LRUCache({ max: 48 });

function readItem(item: Evidence, readTexts: ReadTexts | undefined): ItemRead {
  const key = `${item.kind}\n${item.source}\n${item.isCut ?? false}\n${item.text}`;
  const known = readTexts?.get(key);
  if (known) return { ...known, item };
  const read = readText(item);
  readTexts?.set(key, read);
  return read;
}

function readText(item: Evidence): ItemRead {
  if (item.kind === "fs-type") return { item, spdx: null, said: readFsType(item), notes: [] };
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
  if (item.isCut && !whole) closeCut(said, item);
  return { item, spdx, said, notes: licences.flatMap((id) => notesOf(id, statements, item)) };
}

/** Of a text that was not read to its end what stands there may be taken back further on. */
function closeCut(said: ItemRead["said"], item: Evidence) {
  const text = "The text is longer than is read here, so it clears nothing by itself.";
  for (const use of USES)
    if (said[use] && opens(said[use].verdict))
      said[use] = {
        verdict: "ask-maker",
        quotes: [...said[use].quotes, { text, source: item.source, place: "end" }],
        isWeak: false,
      };
}

/** What a licence without derivatives means for work that changes letters. */
function notesOf(spdx: string, statements: Statement[], item: Evidence): ItemRead["notes"] {
  if (!/^CC-BY(?:-NC)?-ND/.test(spdx)) return [];
  const found =
    statements.find((s) => /NoDerivatives|No ?Derivs|Adapted Material|Derivative|\bND\b/i.test(s.text)) ??
    statements[0];
  return [
    {
      says: "No derivatives: words may be set with the letters as they come. Changing letters (lettering, a logo), tracing or joining them for cutting, and converting the file (subsets, web formats) make a derivative: ask the maker first.",
      quotes: found ? [quoteOf(item, found)] : [],
    },
  ];
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
  // What may be earned with may be done at home, where nothing else is said of home.
  const earning =
    hasLicence || said.private ? null : nearestClaim(read.claims.filter((c) => c.breadth === "commercial"));
  if (earning?.verdict === "cleared") said.private = withConditions(earning, "private", read, item);
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
  if (read.narrowedBy) {
    add(read.narrowedBy);
    return { verdict: "ask-maker", quotes, isWeak: false };
  }
  if (!read.credit) return { verdict: "cleared", quotes, isWeak: false };
  add(read.credit);
  return { verdict: "cleared-with-credit", quotes, isWeak: false };
}

/** Uses of which a text with terms says nothing: the maker has to be asked. A text without terms says nothing at all. */
function fillSilence(said: ItemRead["said"], read: WordingRead, item: Evidence, denied: Statement | null) {
  const first = denied ?? read.aboutTerms ?? read.claims[0]?.statement;
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
