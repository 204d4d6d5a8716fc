// Scripts of characters (Scripts.txt), and where the script changes in a text.
import type { CodePointRanges } from "@/contracts/traits";
import { unicodeScriptCode } from "unicode-script";

/** ISO 15924 codes that take the script of their neighbours: common, inherited, unknown. */
const NEUTRAL = new Set(["Zyyy", "Zinh", "Zzzz"]);

/** ISO 15924 code of a code point's script. */
export const scriptOf = (codePoint: number): string => unicodeScriptCode(codePoint) ?? "Zzzz";

/** A stretch of text in one script: UTF-16 positions, `to` exclusive. */
type ScriptRun = { from: number; to: number; script: string };

/**
 * Parts a text where its script changes. Spaces, marks and punctuation belong to what stands before them, at the beginning to what follows.
 * @returns runs that cover the text without gaps; "Zyyy" where nothing in it has a script of its own. Source: UAX #24, 5.1.
 */
export function splitScripts(text: string): ScriptRun[] {
  const runs: ScriptRun[] = [];
  let at = 0;
  for (const char of text) {
    const script = scriptOf(char.codePointAt(0)!);
    const last = runs[runs.length - 1];
    if (!last) runs.push({ from: 0, to: char.length, script: NEUTRAL.has(script) ? "Zyyy" : script });
    else if (NEUTRAL.has(script) || script === last.script) last.to += char.length;
    else if (last.script === "Zyyy") Object.assign(last, { to: at + char.length, script });
    else runs.push({ from: at, to: at + char.length, script });
    at += char.length;
  }
  return runs;
}

/** Scripts that a set of characters is for (ISO 15924), those with most characters first; what belongs to many scripts does not count. */
export function listScripts(coverage: CodePointRanges): string[] {
  const counts = new Map<string, number>();
  for (const [from, to] of coverage)
    for (let c = from; c <= to; c++) {
      const script = scriptOf(c);
      if (!NEUTRAL.has(script)) counts.set(script, (counts.get(script) ?? 0) + 1);
    }
  return [...counts].sort((a, b) => b[1] - a[1]).map(([script]) => script);
}

const scriptNames = new Intl.DisplayNames("en", { type: "script" });
/** @param script - ISO 15924. */
export const nameScript = (script: string) => scriptNames.of(script) ?? script;

/** Whether a name has letters of another script than Latin. */
export const hasOtherScript = (name: string) => /[^\p{Script=Latin}\P{L}]/u.test(name);
