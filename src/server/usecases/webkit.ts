// Web fonts of chosen faces: which may be made into some by their terms, with which characters, and the job that makes them.
import type { Brief } from "@/contracts/brief";
import { refuse, succeed, type Outcome } from "@/contracts/errors";
import type { JobId, StyleId } from "@/contracts/ids";
import type { Kind, Verdict } from "@/contracts/traits";
import type { WebkitCharacters, WebkitPlan, WebkitRequest } from "@/contracts/webkit";
import { VERDICT_WORDS } from "@/contracts/words";
import { charactersOf } from "@/core/brief/characters";
import { strictestVerdict, verdictsOf } from "@/core/rights/verdicts";
import type { FallbackSort } from "@/core/webkit/fallbacks";
import type { WebFont } from "@/core/webkit/makeWebFont";
import { getDb, type Db } from "../db/open";
import { findBrief } from "../queries/briefs";
import { findStyle, type StyleRecord } from "../queries/styles";
import { addJob } from "../queue/queue";
import { makeWebFontsInWorker } from "../workers/pool";
import { getLanguages } from "./languages";
import { storedAs } from "./styleDetail";

const NO_SUBSETTING = 0x0100;
/** Bit 8 of OS/2 fsType: the font may be embedded whole only. */
export const mayBeCut = ({ facts }: Pick<StyleRecord, "facts">) => ((facts.fsType ?? 0) & NO_SUBSETTING) === 0;

/** How CSS names a face: its weight where it stands, its slope, and which sort of face may stand in for it. */
export function cssLookOf({ facts, style, kinds }: StyleRecord, location: Readonly<Record<string, number>>) {
  const isKind = (kind: Kind) => kinds.some((k) => k.value === kind && k.confidence >= 0.5);
  const fallback: FallbackSort = isKind("monospaced") ? "mono" : isKind("serif") || isKind("slab") ? "serif" : "sans";
  return {
    weight: Math.round(location.wght ?? facts.statedWeight ?? 400),
    isItalic: /italic|oblique/i.test(style),
    fallback,
  };
}

/** Why a face is left out of a web kit, with the sentence of its terms; null where it may go in. */
export function refusalForWeb(record: StyleRecord): { verdict: Verdict; says: string | null; quote: string | null } {
  const verdict = strictestVerdict(verdictsOf(record.rights), ["web"]);
  const quote = record.rights.verdicts.web.quotes[0]?.text ?? null;
  if (!record.owned) return { verdict, says: "It is not bought yet: its file is not here.", quote: null };
  if (verdict === "cleared" || verdict === "cleared-with-credit") return { verdict, says: null, quote };
  return { verdict, says: `${VERDICT_WORDS[verdict]} for the web.`, quote };
}

type Cut = {
  /** Characters that are needed; null: all that the font has. */
  codePoints: number[] | null;
  held: Record<string, number>;
  formats: WebkitRequest["formats"];
  /** What the cut font is called inside where its licence keeps its name for the unchanged one. */
  calledInside: string;
};

/**
 * Web fonts of a face, as its terms let them be made: whole where it states that it may not be cut, under another name where its own is
 * reserved.
 */
export async function cutForWeb(
  record: StyleRecord,
  { codePoints, held, formats, calledInside }: Cut,
  signal: AbortSignal,
): Promise<{ isWhole: boolean; reserved: string | null; fonts: Outcome<WebFont[]> }> {
  const isWhole = !mayBeCut(record);
  const reserved = codePoints && !isWhole ? reservedName(record) : null;
  const fonts = await makeWebFontsInWorker(
    {
      sfntSha256s: storedAs(getDb(), record).sfntSha256s,
      codePoints: isWhole ? null : codePoints,
      held,
      formats,
      calledInside: reserved ? calledInside : null,
    },
    signal,
  );
  return { isWhole, reserved, fonts };
}

/** The name that an OFL licence keeps for the unchanged font (its clause 3), as its copyright line says it. */
function reservedName({ rights, names }: StyleRecord): string | null {
  const texts = [names["0"] ?? "", ...rights.evidence.map((e) => e.text.slice(0, 2000))];
  for (const text of texts) {
    const found = /Reserved Font Names?[ ,:]{0,3}["'“”‘’]?([^"'“”‘’.\n]{1,60})/i.exec(text)?.[1]?.trim();
    if (found && !/^(?:that|this|s\b|specified|refers|\W)/i.test(found)) return found;
  }
  return null;
}

/** The characters of a text that a font must have for it. */
export const charactersOfText = (text: string): number[] =>
  [...new Set(text.normalize("NFC"))].map((c) => c.codePointAt(0)!).filter(isDrawn);
const SPACE = 0x20;
const isDrawn = (codePoint: number) => codePoint > SPACE;

/** The characters asked for; null: all that each font has. */
export function charactersFor(asked: WebkitCharacters, brief: Brief): Outcome<number[] | null> {
  if (asked === "all") return succeed(null);
  if (asked === "brief") return succeed(charactersOfText(charactersOf(brief).join("")));
  if ("text" in asked) return succeed(charactersOfText(asked.text));
  const language = getLanguages().byCode.get(asked.language);
  if (!language) return refuse("language-unknown");
  const digits = charactersOfText("0123456789.,:;!?-–—‘’“”()&/");
  const capitals = charactersOfText(String.fromCodePoint(...language.characters).toLocaleUpperCase(asked.language));
  return succeed([...new Set([...language.characters, ...capitals, ...digits])].filter(isDrawn));
}

/** Answers GET /briefs/:id/webkit. */
export function planWebkit(db: Db, briefId: string): WebkitPlan | null {
  const brief = findBrief(db, briefId);
  if (!brief) return null;
  const ids = [...new Set(brief.kept.map((k) => k.styleId))];
  return {
    faces: ids.flatMap((styleId) => {
      const record = findStyle(db, styleId);
      if (!record) return [];
      const { verdict, says, quote } = refusalForWeb(record);
      return [{ styleId, name: `${record.family} ${record.style}`, verdict, refusal: says, quote }];
    }),
  };
}

/** Starts a kit. Refused where none of the faces may become web fonts: with the sentence that says so. */
export function startWebkit(db: Db, briefId: string, request: WebkitRequest): Outcome<{ jobId: JobId }> {
  const brief = findBrief(db, briefId);
  if (!brief) return refuse("not-found");
  const records = [...new Set<StyleId>(request.styleIds)].map((id) => findStyle(db, id));
  if (!records.every((r) => r !== null)) return refuse("not-found");
  const characters = charactersFor(request.characters, brief);
  if (!characters.ok) return characters;
  const refusals = records.map((record) => ({ name: `${record.family} ${record.style}`, ...refusalForWeb(record) }));
  if (refusals.every((r) => r.says !== null))
    return refuse(
      "not-for-web",
      refusals.map((r) => `${r.name}: ${r.says}${r.quote ? ` “${r.quote}”` : ""}`).join(" "),
    );
  return succeed({ jobId: addJob("webkit", `Web kit of ${brief.name}`, { briefId, request }, briefId) });
}
