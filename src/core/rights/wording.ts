// Free wording → claims: what a text allows, denies or asks for, use by use, with the statement each claim rests on.
// Rules over the lexicon, sentence by sentence; no text is taken for granted that the rules do not understand.
import { USES, type Use, type Verdict } from "@/contracts/traits";
import {
  ABOUT_TERMS,
  ASKING,
  BARGAIN,
  CREDIT,
  DONATION,
  EXCEPTION,
  FONT_ITSELF,
  KIND_NO,
  LIMIT,
  NEGATION,
  NON_COMMERCIAL,
  NO_ANSWER,
  NO_GRANT,
  ONLY,
  OPTIONAL,
  OTHER_USE,
  PASSING_ON,
  PAYING,
  PERMISSION,
  PURCHASE,
  SCOPES,
  SELLING,
  THESE_USES,
  TRIAL,
  YES,
  type Scope,
} from "./lexicon";
import { withoutNames } from "./mentions";
import { findNarrowing, narrowsOthers, narrowsPrivate, withoutConditions } from "./narrowing";
import type { Statement } from "./statements";

/** How far a claim reaches: one named use beats "commercial", which beats "any". "Only" is what an "only" leaves out. */
export type Breadth = "named" | "commercial" | "only" | "any" | "implied";
export type Claim = { use: Use; verdict: Verdict; breadth: Breadth; statement: Statement; isNarrowed?: boolean };
export type WordingRead = {
  claims: Claim[];
  /** The statement that makes credit a condition. */
  credit: Statement | null;
  /** The statement that forbids passing the file on, changing or embedding it. */
  noPassingOn: Statement | null;
  /** The text speaks of terms at all. */
  aboutTerms: Statement | null;
  /** A sentence of its own that narrows what others grant. */
  narrowedBy: Statement | null;
};

const EARNING: Use[] = USES.filter((u) => u !== "private");
const usesOf = (scope: Scope): readonly Use[] => (scope === "any" ? USES : scope === "commercial" ? EARNING : [scope]);
const breadthOf = (scope: Scope): Breadth =>
  scope === "any" ? "any" : scope === "commercial" ? "commercial" : "named";

/**
 * Reads statements of terms.
 * @param all - of one text; those that are part of a recognised licence left out. @param isField - what a library says of a font.
 */
export function readWording(all: Statement[], isField: boolean): WordingRead {
  const read: WordingRead = { claims: [], credit: null, noPassingOn: null, aboutTerms: null, narrowedBy: null };
  const sellsElsewhere = all.some((s) => PURCHASE.test(s.text));
  for (const [i, statement] of all.entries()) {
    if (!read.aboutTerms && (isField || ABOUT_TERMS.test(statement.text))) read.aboutTerms = statement;
    if (/\?["”»)]?$/.test(statement.text) && readQuestion(statement, all[i + 1] ?? null, read)) continue;
    const lead = statement.heading ? polarityOf(statement.heading) : null;
    if (narrowsOthers(statement.text)) read.narrowedBy ??= statement;
    // Names of licences are no wording.
    const first = read.claims.length;
    const clauses = clausesOf(withoutNames(statement.text));
    let hasNarrowingPart = false;
    for (const clause of clauses) {
      const before = read.claims.length;
      readClause(clause, statement, lead, read, sellsElsewhere, isField);
      if (read.claims.length === before) hasNarrowingPart ||= isNarrowingPart(clause);
    }
    // What narrows one clause of a sentence narrows its others: "the first fifty may use it, commercial work included".
    const own = read.claims.slice(first);
    if (own.some((c) => c.isNarrowed) || hasNarrowingPart || headsNarrowly(statement.heading))
      for (const c of own) if (c.verdict === "cleared" && c.use !== "private") c.verdict = "ask-maker";
  }
  return read;
}

/** A part of a sentence that grants and denies nothing, and says something of the others: "…; until May", "… – for members". */
const isNarrowingPart = ({ text }: Clause) =>
  !ABOUT_ELSE.some((r) => r.test(text)) && findNarrowing(stripKindNo(text)) !== null;
/** Read by themselves: credit, passing on, the price of the font. */
const ABOUT_ELSE = [CREDIT, PASSING_ON, DONATION, OPTIONAL];

/** The line over a list may say for whom or until when. Words with capitals are its title or the font's name. */
function headsNarrowly(heading: string | null): boolean {
  if (!heading) return false;
  const text = stripKindNo(withoutNames(heading));
  const found = findNarrowing(text);
  if (found !== "unknown words") return found === "condition" || found === "number";
  return FOR_SOMEBODY.test(heading) || findNarrowing(text.replace(/\p{Lu}[\p{L}’'-]*/gu, " ")) !== null;
}
const FOR_SOMEBODY =
  /^\s*(?:for|in|at|on|by|this|next|among|between|as|subject|with|after|below|under|within|upon|für|im?|am|auf|bei|durch|unter|nach|mit|zwischen|vor|diese[nrs]?|pour|dans|entre|sous|avec|après|selon|en|à|aux?|par|cet(?:te)?|ce|para|por|entre|bajo|con|tras|según|est[ea])\s/iu;

/** A question grants nothing; the sentence behind it answers. @returns false where the question names no use. */
function readQuestion(question: Statement, answer: Statement | null, read: WordingRead): boolean {
  const scopes = scopesIn(markPrivate(question.text));
  if (!scopes.length || PURCHASE.test(question.text)) return false;
  const verdict = answer ? verdictOfAnswer(answer.text) : "ask-maker";
  for (const scope of scopes.filter((s) => s !== "private" || scopes.length === 1))
    for (const use of usesOf(scope))
      read.claims.push({ use, verdict, breadth: breadthOf(scope), statement: answer ?? question });
  return true;
}

function verdictOfAnswer(answer: string): Verdict {
  if (PURCHASE.test(answer) || PAYING.test(answer)) return "buy-first";
  if (ASKING.test(answer)) return "ask-maker";
  const start = answer.split(/[,.!;]/)[0]!;
  if (NO_ANSWER.test(start)) return "not-for-this-use";
  return YES.test(start) ? "cleared" : "ask-maker";
}

/** "… and this one isn't", with no use named: takes back what was granted before. */
const TAKEN_BACK =
  /(?:\b(?:is|are|was|does|do|may|this one|it)\s*(?:not|n['’]t)|isn['’]t|\bist sie nicht|\bist es nicht|\bdiese nicht|\bne l['’]est pas|\bno lo es)\s*[.!]?$/iu;
function takeBack(read: WordingRead, statement: Statement) {
  for (const c of read.claims)
    if (c.verdict === "cleared" && c.use !== "private") {
      c.verdict = "ask-maker";
      c.statement = statement;
    }
}

type Polarity = "permits" | "denies" | null;
type Clause = { text: string; isException: boolean; before: Polarity };

/** A sentence cut where it turns: "but", "except", semicolons; commas where the next part speaks of another scope. */
function clausesOf(sentence: string): Clause[] {
  const turns =
    /;|\s[-–—]\s|,?\s(?=(?:but|whereas|aber|jedoch|sondern|hingegen|mais|cependant|toutefois|pero|sino|mientras que)\s)|,\s(?=(?:however|while)\s)|\.\s/giu;
  const parts: Clause[] = [];
  for (const piece of markPrivate(sentence).split(turns)) {
    if (!piece?.trim()) continue;
    const m = piece.match(EXCEPTION);
    const before = m ? polarityOf(piece.slice(0, m.index)) : null;
    // "Not without a licence, except with permission": the exception names a condition, no scope.
    if (m && m.index !== undefined && scopesIn(piece.slice(m.index)).length) {
      if (piece.slice(0, m.index).trim())
        parts.push({ text: piece.slice(0, m.index), isException: false, before: null });
      parts.push({ text: piece.slice(m.index + m[0].length), isException: true, before });
    } else parts.push({ text: piece, isException: false, before: null });
  }
  return parts.flatMap(splitCommas);
}

/** Commas part a clause where both sides name scopes and the right one has a mood of its own. */
function splitCommas(clause: Clause): Clause[] {
  const pieces = clause.text.split(/(,\s+|:\s+(?=\S))/);
  if (pieces.length < 3) return [clause];
  const out: string[] = [];
  for (let i = 0; i < pieces.length; i += 2) {
    const piece = pieces[i]!;
    const colon = pieces[i - 1]?.startsWith(":");
    const last = out[out.length - 1];
    const both = last !== undefined && scopesIn(last).length > 0 && scopesIn(piece).length > 0;
    // "It is not open: it may be used …": what stands before a colon without a scope has no say behind it.
    const turned = last !== undefined && colon && !scopesIn(last).length && moodOf(last);
    const parts = last !== undefined && (both || turned) && moodOf(last) && moodOf(piece);
    if (parts) out.push(piece);
    else if (last === undefined) out.push(piece);
    else out[out.length - 1] = `${last}, ${piece}`;
  }
  return out.map((text) => ({ ...clause, text }));
}

const EVERY_NON_COMMERCIAL = new RegExp(NON_COMMERCIAL.source, "giu");
const EVERY_KIND_NO = new RegExp(KIND_NO.source, "giu");
/** "Non-commercial" speaks of private use, before "commercial" is looked for. */
const markPrivate = (text: string) => text.replace(EVERY_NON_COMMERCIAL, "§private§");
const stripKindNo = (text: string) => text.replace(EVERY_KIND_NO, " free ");
const moodOf = (text: string): boolean => {
  const t = stripKindNo(text);
  return NEGATION.test(t) || PERMISSION.test(t) || PURCHASE.test(t) || ASKING.test(t);
};

function polarityOf(text: string): Polarity {
  const t = stripKindNo(text);
  if (NEGATION.test(t)) return "denies";
  return PERMISSION.test(t) ? "permits" : null;
}

/** A notice of ownership speaks of marks, not of what they may be used for. */
const OWNERSHIP =
  /\b(?:trade\s?marks?|marques?|marcas?)\s+(?:of|de|registrada|déposée)|eingetragene\s+marken?|all rights reserved|alle rechte vorbehalten|tous droits réservés|todos los derechos reservados/giu;

function scopesIn(text: string): Scope[] {
  const clean = text
    .replace(/font software|police de caract[eè]res/gi, "font")
    .replace(/electronic books?|livres? (?:numériques?|électroniques?)|libros? electrónicos?|e-books?/gi, "ebook")
    .replace(OWNERSHIP, " ");
  const found = (Object.keys(SCOPES) as Scope[]).filter((s) => SCOPES[s].test(clean));
  // "Private invitations": what is named is private, not print for clients. A way of making stays.
  if (found.includes("private") && !found.includes("commercial") && !found.includes("any"))
    return found.filter((s) => s === "private" || s === "cutting");
  // "Any personal or commercial project": the narrower words say which.
  const narrow = found.filter((s) => s !== "any");
  if (!found.includes("any") || !narrow.length) return found;
  const isBroad = /(?:alle|all|any|every|tous?|toute?s?|cualquier|todo)/i.test(clean);
  return found.includes("private") || found.includes("commercial") || !isBroad ? narrow : found;
}

/** What the words of a clause say, before it is asked what follows for which use. */
function factsOf({ text, isException, before }: Clause, statement: Statement, lead: Polarity) {
  const plain = stripKindNo(text);
  const says = (r: RegExp) => r.test(plain);
  const sellsFont = SELLS_FONT.test(plain);
  const named = scopesIn(text);
  // Who sells what is made with the font sells goods.
  const sellsGoods =
    SELLING.test(plain) &&
    !sellsFont &&
    !PASSING_ON.test(plain) &&
    !SOLD_APART.test(plain) &&
    !named.includes("goods-for-sale");
  const scopes: Scope[] = sellsGoods ? [...named, "goods-for-sale"] : named;
  const bare = scopesIn(withoutConditions(text)).length ? withoutConditions(plain) : plain;
  const denies = isException ? before !== "denies" : NEGATION.test(bare) || lead === "denies";
  const buys =
    PURCHASE.test(bare.replace(OWN_TERMS, " ")) ||
    PAYING.test(bare) ||
    (says(DONATION) && !OPTIONAL.test(statement.text) && scopes.some((s) => s !== "private"));
  return {
    text,
    plain,
    whole: stripKindNo(markPrivate(statement.text)),
    says,
    sellsFont,
    named,
    scopes,
    denies,
    buys,
    asks: says(ASKING),
    isNoGrant: (says(NO_GRANT) || OF_A_SPECIMEN.test(plain)) && !denies,
    permits: says(PERMISSION) || lead === "permits" || says(ONLY),
    isCredit: CREDIT.test(text) && !OPTIONAL.test(statement.text),
  };
}
type Facts = ReturnType<typeof factsOf>;
type PutClaim = (list: readonly Use[], verdict: Verdict, breadth: Breadth, isNarrowed?: boolean) => void;

const verdictOf = ({ buys, asks }: Facts): Verdict => (buys ? "buy-first" : asks ? "ask-maker" : "not-for-this-use");

function readClause(
  clause: Clause,
  statement: Statement,
  lead: Polarity,
  read: WordingRead,
  sellsElsewhere: boolean,
  isField: boolean,
) {
  const facts = factsOf(clause, statement, lead);
  const { plain, sellsFont, scopes, denies, buys, asks } = facts;
  const claim: PutClaim = (list, verdict, breadth, isNarrowed = false) => {
    for (const use of list) read.claims.push({ use, verdict, breadth, statement, isNarrowed });
  };
  if (facts.isCredit && !denies) read.credit ??= statement;
  if (TRIAL.test(plain) && !scopes.includes("private"))
    return claim(USES, buys || sellsElsewhere ? "buy-first" : "not-for-this-use", "commercial");
  if ((PASSING_ON.test(plain) || sellsFont) && denies) {
    const inside = scopes.some((s) => s === "web" || s === "app");
    if (!inside) read.noPassingOn ??= statement;
    if (!inside && (sellsFont || !scopes.includes("goods-for-sale"))) return;
  }
  if (!scopes.length && TAKEN_BACK.test(plain) && !PASSING_ON.test(plain)) return takeBack(read, statement);
  if (BARGAIN.test(plain)) return claim(EARNING, "buy-first", "any");
  if (!scopes.length && !denies && (buys || asks) && THESE_USES.test(plain))
    return turnBack(read, buys ? "buy-first" : "ask-maker");
  const isOther = OTHER_USE.test(plain) && (scopes.includes("any") || !scopes.length);
  if (isOther && (denies || buys || asks)) {
    const named = new Set(read.claims.filter((c) => c.breadth === "named").map((c) => c.use));
    const others = EARNING.filter((u) => !named.has(u));
    return claim(others, verdictOf(facts), "commercial");
  }
  // A shop's field that names a price says that the face is sold.
  if (isField && PRICED.test(plain) && !scopes.some((s) => s !== "commercial")) return claim(USES, "buy-first", "any");
  if (!scopes.length) return readWithoutScope(plain, facts.whole, facts, claim);
  const granted = readScopes(facts, claim);
  const clearedHere = read.claims.filter((c) => c.statement === statement && c.verdict === "cleared").map((c) => c.use);
  claimRest(facts, [...clearedHere, ...granted], claim);
}

/** What a clause says of each use that it names. @returns the uses that it grants, narrowed or not. */
function readScopes(facts: Facts, claim: PutClaim): Use[] {
  const { text, plain, says, named, scopes, denies, buys, asks, permits } = facts;
  const isApart = scopes.includes("private") && scopes.includes("commercial") && !joins(plain);
  const isLimited = LIMIT.test(plain);
  const isNarrowed = findNarrowing(text) !== null;
  const isNarrowedPrivately = narrowsPrivate(text);
  const granted: Use[] = [];
  for (const scope of scopes) {
    // "Printing on goods": print is the manner, goods are what is meant.
    if (scope === "client-print" && named.includes("goods-for-sale") && PRINTED_ON.test(plain)) continue;
    const breadth = breadthOf(scope);
    if (denies) claim(usesOf(scope), verdictOf(facts), breadth);
    else if (buys && !ABOUT_BUYING_USE.test(plain)) continue;
    else if (buys && !(scope === "private" && says(PERMISSION) && !joins(plain)))
      claim(usesOf(scope), "buy-first", breadth);
    else if (asks && !facts.isCredit) claim(usesOf(scope), "ask-maker", breadth);
    // "Private free, commercial …": what is said of the one is not said of the other.
    else if (facts.isNoGrant && !buys && !asks) continue;
    else if (isApart && scope !== "private") continue;
    else if (permits || isNounStyle(plain)) {
      granted.push(...usesOf(scope));
      const narrows = scope === "private" ? isNarrowedPrivately : isLimited || isNarrowed;
      claim(usesOf(scope), narrows ? "ask-maker" : "cleared", breadth, narrows && scope !== "private");
    }
  }
  return granted;
}

/** Where only some uses are allowed, what follows for the others. */
function claimRest({ says, scopes, denies, buys, asks }: Facts, allowed: readonly Use[], claim: PutClaim) {
  const isOnly = says(ONLY) || (scopes.length === 1 && scopes[0] === "private");
  if (denies || buys || !isOnly || !allowed.length) return;
  const others = USES.filter((u) => !allowed.includes(u));
  claim(others, asks ? "ask-maker" : "not-for-this-use", says(ONLY) ? "only" : "implied");
}

/** What is bought is a licence, or bought for a use: not a printed specimen. */
const ABOUT_BUYING_USE =
  /licen|lizen|holder|owner|buyer|regist|inhaber|käufer|détent|titular|comprador|version|fee|gebühr|donat|spende|\bdon\b|donativo|\d|\b(?:for|für|pour|para|before|vor|avant|antes)\b|\bus[eo]\b|nutz|verwend|utilis|utiliz|require|upgrade|commercial/iu;

/** "Separate licences are available for these uses": what was denied just before can be had. */
function turnBack(read: WordingRead, verdict: Verdict) {
  const last = read.claims[read.claims.length - 1]?.statement;
  for (const c of read.claims) if (c.statement === last && c.verdict === "not-for-this-use") c.verdict = verdict;
}

/** Words that may stand between "private" and "commercial" where both are meant alike. */
const LINKS =
  "and|or|as|well|nor|und|oder|wie|sowie|et|ou|comme|que|y|o|e|u|&|\\/|\\+|,|for|für|pour|para|in|en|dans|im|your|deine[nrs]?|tus|vos|both|also|auch|too|aussi|también|même|including|even|any|all|other|alike|use|uses|usage|work|works|purposes?|projects?|zwecken?|nutzung|gebrauch|projekten?|arbeiten|usages?|fins|projets?|travaux|uso|usos|fines|proyectos?|trabajos?|at|home|the|de|for";
const GAP = `(?:[\\s(]|${LINKS})*`;
const [PRIVATE, COMMERCIAL] = [SCOPES.private.source, SCOPES.commercial.source];
const JOINED = new RegExp(`(?:${PRIVATE})${GAP}(?:${COMMERCIAL})|(?:${COMMERCIAL})${GAP}(?:${PRIVATE})`, "iu");
/** "Private and commercial", in either order, name one thing together. */
const joins = (text: string) => JOINED.test(text.replace(/§private§/g, "private"));
/** "Personal use only", "Licence: commercial use": no verb, yet a grant. */
const isNounStyle = (text: string) => /(?:licen[cs]e|lizenz|licence|licencia)(?: type)?\s*[:=]/i.test(text);

/** The licence at hand, named as the one that speaks: "this desktop licence permits …". */
const OWN_TERMS =
  /\b(?:this|your|diese|ihre|cette|votre|la présente|esta|su)\s+(?:\p{L}+\s+){0,2}(?:licen[cs]e|lizenz|licence|licencia)\b|\b(?:licen[cs]e|lizenz|licence|licencia)\s+(?:permits|allows|covers|includes|grants|umfasst|erlaubt|gestattet|permet|autorise|couvre|comprend|permite|incluye|cubre|autoriza)\b/giu;

const PRICED = /\b(?:price|preis|prix|precio)\b|[€$£]|\d\s?(?:EUR|USD|GBP)\b/i;
const between = (a: RegExp, b: RegExp) =>
  new RegExp(`(?:${a.source})(?:(?!\\b(?:on|auf|sur|sobre|with|mit|avec|con)\\b)[^.,;]){0,18}(?:${b.source})`, "iu");
/** "Sell the font", "the font may not be sold". */
const SELLS_FONT = new RegExp(`${between(SELLING, FONT_ITSELF).source}|${between(FONT_ITSELF, SELLING).source}`, "iu");
const SOLD_APART =
  /sold separately|for sale at|licensed, not sold|not sold|vendu\p{L}* (?:séparément|à part)|se vende\p{L}* aparte|gesondert verkauft/iu;

/** The sentence is about a picture or a paper, not about the font. */
const OF_A_SPECIMEN =
  /^\s*(?:the|all|our|any|die|das|les|la|le|el|las|los)?\s*(?:specimen|previews?|sample|pictures?|photos?|images?|pdf|website|source code|documentation|bilder|vorschau|dokumentation|aperçus?|im[áa]genes)\b[^,;]{0,30}\b(?:is|are|may|can|ist|sind|darf|dürfen|est|sont|es|son)\b/iu;

const PRINTED_ON =
  /\b(?:print\w*|druck\w*|imprim\p{L}*|impres\p{L}*)\s+(?:(?!(?:and|or|und|oder|et|ou|y|o)\s)[^\s,]+\s+){0,3}(?:on|auf|sur|en|sobre)\s|\bauf\s+\S+\s+(?:zu\s+)?druck/iu;

type Flags = { denies: boolean; buys: boolean; asks: boolean; permits: boolean };
/** Use at large: "may not be used without permission", "use is free". */
const USING =
  /\b(?:us(?:e|ed|ing|age)|verwend\p{L}*|nutz\p{L}*|benutz\p{L}*|einsetz\p{L}*|eingesetzt|utilis\p{L}*|us(?:o|ar|arse|ado)|utiliz\p{L}*)\b/iu;
function readWithoutScope(
  plain: string,
  whole: string,
  { denies, buys, asks, permits }: Flags,
  claim: (list: readonly Use[], verdict: Verdict, breadth: Breadth) => void,
) {
  if (!USING.test(plain)) return;
  if (denies) claim(USES, buys || PURCHASE.test(whole) ? "buy-first" : asks ? "ask-maker" : "not-for-this-use", "any");
  else if (buys) claim(EARNING, "buy-first", "any");
  else if (asks) claim(EARNING, "ask-maker", "any");
  else if (permits) claim(["private"], narrowsPrivate(plain) ? "ask-maker" : "cleared", "any");
}
