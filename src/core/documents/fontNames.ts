// Parts the name of a font, as documents write it, into family and style: "ABCDEF+Lora-BoldItalic", "Lora,Bold", "LoraMedium".

/** Six capitals and a plus: only some of the letters are in the file (ISO 32000-2, 9.9.2). */
const SUBSET_TAG = /^[A-Z]{6}\+/;
export const isSubsetName = (name: string) => SUBSET_TAG.test(name);

const STYLE_WORDS =
  /^(?:regular|roman|book|normal|text|thin|hairline|extra|ultra|semi|demi|light|medium|bold|black|heavy|fat|italic|oblique|condensed|compressed|narrow|expanded|extended|wide|display|caption|small|caps|inline|outline|shadow|it|obl|bd|md|lt|blk|cond)+$/i;
const spaced = (s: string) =>
  s
    .replace(/[_\s]+/g, " ")
    .replace(/(\p{Ll})(\p{Lu})/gu, "$1 $2")
    .replace(/(\p{L})(\d)/gu, "$1 $2")
    .trim();

/** @returns family and style in words; a style that the name does not tell is null. */
export function partName(name: string): { family: string | null; style: string | null } {
  const bare = name
    .replace(SUBSET_TAG, "")
    // Hints of the encoding that some writers add.
    .replace(/-(?:Identity|UniCNS|UniGB|UniJIS|UniKS)[\w-]*$/i, "")
    .replace(/(?:MT|PS)(?=$|-|,)/g, "")
    .replace(/["']/g, "")
    .trim();
  if (!bare) return { family: null, style: null };
  const cut = bare.search(/[,-](?=[^,-]*$)/);
  if (cut > 0) {
    const [family, style] = [bare.slice(0, cut), bare.slice(cut + 1)];
    if (!/\s/.test(bare) || STYLE_WORDS.test(style.replace(/\s/g, "")))
      return { family: spaced(family), style: spaced(style) || null };
  }
  // Words of a style at the end of a spelled-out name.
  const words = spaced(bare).split(" ");
  let from = words.length;
  while (from > 1 && STYLE_WORDS.test(words[from - 1]!)) from--;
  return { family: words.slice(0, from).join(" "), style: words.slice(from).join(" ") || null };
}

/** Weight and slant that a style's words tell, to choose among the styles of a family. */
export function readStyleWords(style: string | null): { weight: number; isSlanted: boolean } {
  const s = (style ?? "").toLowerCase().replace(/[\s-]/g, "");
  const weights: [RegExp, number][] = [
    [/hairline|thin/, 100],
    [/(?:extra|ultra)light/, 200],
    [/light|lt$/, 300],
    [/(?:semi|demi)bold|demi/, 600],
    [/(?:extra|ultra)bold|heavy/, 800],
    [/black|fat|blk/, 900],
    [/bold|bd/, 700],
    [/medium|md$/, 500],
  ];
  const stated = /(?:^|\D)([1-9]00)(?:\D|$)/.exec(s);
  return {
    weight: stated ? Number(stated[1]) : (weights.find(([words]) => words.test(s))?.[1] ?? 400),
    isSlanted: /italic|oblique|obl$|slanted|(?:^|[a-z])it$/.test(s),
  };
}
