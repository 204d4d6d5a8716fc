// Does a style serve this brief? Characters of every line, the wanted ones, the uses, the health of the file.
import type { BriefFields, Check } from "@/contracts/brief";
import type { CodePointRanges, Health, Use, Verdict } from "@/contracts/traits";
import { USE_WORDS } from "@/contracts/words";
import type { Rights } from "@/contracts/rights";
import { writeCodePoint } from "../unicode/codePoint";
import { nameCharacter } from "../unicode/names";
import { charactersOf, findMissing } from "./characters";

type StyleFacts = { coverage: CodePointRanges; rights: Rights; health: Health };

const IN_A_SENTENCE: Record<Verdict, string> = {
  cleared: "allowed",
  "cleared-with-credit": "allowed when the credit or licence goes along",
  "buy-first": "allowed after purchase",
  "ask-maker": "not clearly allowed: ask the maker",
  "not-for-this-use": "not allowed",
  unread: "unknown: no terms were found",
};

/**
 * Runs every check of a brief on one style.
 * @returns one entry a line of text, one for the wanted characters, one a use, one for the file.
 */
export function checkBrief(brief: Pick<BriefFields, "lines" | "wanted" | "uses">, style: StyleFacts): Check[] {
  const checks = brief.lines.map((line) => checkCharacters(`“${line.text}”`, [{ ...line }], "", style.coverage));
  if (brief.wanted.trim()) checks.push(checkCharacters("wanted characters", [], brief.wanted, style.coverage));
  for (const use of brief.uses) checks.push(checkUse(use, style.rights));
  checks.push(checkHealth(style.health));
  return checks;
}

function checkCharacters(
  subject: string,
  lines: BriefFields["lines"],
  wanted: string,
  coverage: CodePointRanges,
): Check {
  const needed = charactersOf({ lines, wanted });
  const missing = findMissing(needed, coverage);
  const names = missing.map((c) => `${c} (${nameCharacter(c.codePointAt(0)!)}, ${writeCodePoint(c.codePointAt(0)!)})`);
  return {
    check: "characters",
    subject,
    outcome: missing.length ? "fail" : "pass",
    measured: `${needed.length - missing.length} of ${needed.length}`,
    wanted: `${needed.length} of ${needed.length}`,
    reason: missing.length ? `It lacks ${names.join(", ")}.` : "Every character is there.",
  };
}

function checkUse(use: Use, rights: Rights): Check {
  const { verdict, quotes } = rights.verdicts[use] ?? { verdict: "unread" as const, quotes: [] };
  const quoted = quotes[0] ? ` “${quotes[0].text}” (${quotes[0].source}, ${quotes[0].place})` : "";
  return {
    check: "use",
    subject: USE_WORDS[use],
    outcome: verdict === "cleared" ? "pass" : verdict === "not-for-this-use" ? "fail" : "care",
    measured: verdict,
    wanted: "cleared",
    reason: `For ${USE_WORDS[use]} it is ${IN_A_SENTENCE[verdict]}.${quoted}`,
  };
}

function checkHealth(health: Health): Check {
  return {
    check: "health",
    subject: "the font file",
    outcome: health.degree === "fine" ? "pass" : health.degree === "refused" ? "fail" : "care",
    measured: health.degree,
    wanted: "fine",
    reason: health.faults.length
      ? health.faults.map((f) => `${f.table}: ${f.meaning}`).join(" ")
      : "No fault was found in it.",
  };
}
