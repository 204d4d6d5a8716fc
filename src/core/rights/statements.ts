// A text of terms → its statements: sentences and list items, each with the line it begins in and the heading over it.

export type Statement = {
  /** White space is folded; the words stay as written. */
  text: string;
  /** 1-based line in the text. */
  line: number;
  /** The line ending in a colon that opens the list this item belongs to; null outside of lists. */
  heading: string | null;
};

const BULLET = /^\s*(?:[-*•–—·+✓✔✗✘x]|\d{1,2}[.)]|\(?[a-z]\))\s+(?=\S)/;
/** A sentence ends before a capital, a quote, a figure or the end; not after usual abbreviations. */
const ABBREVIATED =
  /(?:^|\s)(?:e\.?g|i\.?e|z|z\.?\s?b|d\.?\s?h|bzw|ca|vgl|etc|inc|ltd|co|no|nr|p\.? ?ex|vol|approx|incl|inkl|st|mr|mrs|dr|art|c\.-à-d)\.$/i;
/** Lines shorter than this are not wrapped by an editor: they end where their writer ended them. */
const WRAPPED_LENGTH = 48;

/** Splits a text of terms. Never throws; a text without letters gives none. */
export function statementsOf(text: string): Statement[] {
  const out: Statement[] = [];
  let heading: string | null = null;
  let held: { lines: string[]; line: number; isItem: boolean } | null = null;
  const flush = () => {
    if (held)
      for (const s of sentences(held.lines.join("\n"), held.line))
        out.push({ ...s, heading: held.isItem ? heading : null });
    held = null;
  };
  text.split(/\r\n|\r|\n/).forEach((raw, i) => {
    const line = i + 1;
    const trimmed = raw.trim();
    if (!/[\p{L}\p{N}]/u.test(trimmed)) return flush();
    const isItem = BULLET.test(raw);
    const isHeading = /:$/.test(trimmed) && trimmed.length < 120;
    if (isItem || isHeading || (held && !goesOn(held.lines[held.lines.length - 1]!, trimmed))) flush();
    if (isHeading) {
      heading = trimmed;
      out.push({ text: trimmed, line, heading: null });
      return;
    }
    if (held) held.lines.push(trimmed);
    else {
      const under: boolean = isItem || (heading !== null && /^\s{2,}/.test(raw));
      if (!under && !isItem) heading = null;
      held = { lines: [trimmed.replace(BULLET, "")], line, isItem: under };
    }
  });
  flush();
  return out;
}

/** Whether a line continues the one before: that one was long enough to be wrapped and had no end. */
function goesOn(last: string, next: string): boolean {
  if (/[.!?:]["”»)]?$/.test(last)) return last.length >= WRAPPED_LENGTH;
  return /^[\p{Ll}(]/u.test(next) || last.length >= WRAPPED_LENGTH;
}

function sentences(block: string, line: number): { text: string; line: number }[] {
  const out: { text: string; line: number }[] = [];
  let from = 0;
  // Line of the text at which `from` stands: counted on, never from the start again.
  let at = line;
  const push = (to: number) => {
    const part = block.slice(from, to);
    const lead = part.length - part.trimStart().length;
    const clean = part.replace(/\s+/g, " ").trim();
    const first = at + countLines(part.slice(0, lead));
    if (/\p{L}{2}/u.test(clean)) for (const text of bounded(clean)) out.push({ text, line: first });
    at += countLines(part);
    from = to;
  };
  for (const m of block.matchAll(/[.!?;]["”»)]?\s+(?=["“«(¿¡\p{Lu}\p{N}])/gu)) {
    const to = m.index + m[0].length;
    if (!ABBREVIATED.test(block.slice(Math.max(from, m.index - LONGEST_ABBREVIATION), m.index + 1))) push(to);
  }
  push(block.length);
  return out;
}
const LONGEST_ABBREVIATION = 12;

const countLines = (text: string) => text.split("\n").length - 1;

/** What is longer is no sentence: it is read in pieces, so that no pattern meets more. */
const MAX_SENTENCE = 2_000;
function bounded(sentence: string): string[] {
  if (sentence.length <= MAX_SENTENCE) return [sentence];
  const out: string[] = [];
  for (let from = 0; from < sentence.length;) {
    const space = sentence.lastIndexOf(" ", from + MAX_SENTENCE);
    const to = from + MAX_SENTENCE >= sentence.length ? sentence.length : space > from ? space : from + MAX_SENTENCE;
    out.push(sentence.slice(from, to).trim());
    from = to;
  }
  return out.filter(Boolean);
}
