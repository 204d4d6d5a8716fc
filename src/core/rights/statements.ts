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
  let held: { text: string; line: number; isItem: boolean } | null = null;
  const flush = () => {
    if (held)
      for (const s of sentences(held.text, held.line)) out.push({ ...s, heading: held.isItem ? heading : null });
    held = null;
  };
  text.split(/\r\n|\r|\n/).forEach((raw, i) => {
    const line = i + 1;
    const trimmed = raw.trim();
    if (!/[\p{L}\p{N}]/u.test(trimmed)) return flush();
    const isItem = BULLET.test(raw);
    const isHeading = /:$/.test(trimmed) && trimmed.length < 120;
    if (isItem || isHeading || (held && !goesOn(held.text, trimmed))) flush();
    if (isHeading) {
      heading = trimmed;
      out.push({ text: trimmed, line, heading: null });
      return;
    }
    if (held) held.text += `\n${trimmed}`;
    else {
      const under: boolean = isItem || (heading !== null && /^\s{2,}/.test(raw));
      if (!under && !isItem) heading = null;
      held = { text: trimmed.replace(BULLET, ""), line, isItem: under };
    }
  });
  flush();
  return out;
}

/** Whether a line continues the one before: that one was long enough to be wrapped and had no end. */
function goesOn(before: string, next: string): boolean {
  const last = before.slice(before.lastIndexOf("\n") + 1);
  if (/[.!?:]["”»)]?$/.test(last)) return last.length >= WRAPPED_LENGTH;
  return /^[\p{Ll}(]/u.test(next) || last.length >= WRAPPED_LENGTH;
}

function sentences(block: string, line: number): { text: string; line: number }[] {
  const out: { text: string; line: number }[] = [];
  let from = 0;
  const push = (to: number) => {
    const part = block.slice(from, to);
    const clean = part.replace(/\s+/g, " ").trim();
    const lead = block.slice(0, from + (part.length - part.trimStart().length)).split("\n").length - 1;
    if (/\p{L}{2}/u.test(clean)) out.push({ text: clean, line: line + lead });
    from = to;
  };
  for (const m of block.matchAll(/[.!?;]["”»)]?\s+(?=["“«(¿¡\p{Lu}\p{N}])/gu)) {
    const to = m.index + m[0].length;
    if (!ABBREVIATED.test(block.slice(from, m.index + 1))) push(to);
  }
  push(block.length);
  return out;
}
