// Scripts of characters (Scripts.txt), and where the script changes in a text.
import { unicodeScriptCode } from "unicode-script";

/** ISO 15924 codes that take the script of their neighbours: common, inherited, unknown. */
const NEUTRAL = new Set(["Zyyy", "Zinh", "Zzzz"]);

/** ISO 15924 code of a code point's script. */
const scriptOf = (codePoint: number): string => unicodeScriptCode(codePoint) ?? "Zzzz";

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
