// Fonts that style sheets ask for: the first name of each list, where it is asked, and which of them the document brings along.
// Follows CSS Fonts 4 and CSS Syntax 3 (parsed by a package); what a selector would match is not worked out.
import { parse, walk, generate, type Atrule, type CssNode, type Declaration, type Rule } from "css-tree";
import { listUses, signFile, type FoundFont } from "./found";

/** Names that stand for whatever the machine has. */
const GENERIC =
  /^(?:serif|sans-serif|monospace|cursive|fantasy|system-ui|ui-[\w-]+|math|emoji|fangsong|inherit|initial|unset|revert(?:-layer)?|-apple-system|blinkmacsystemfont)$/i;

export type Ask = { family: string; style: string | null; usedFor: string };
export type Brought = { family: string; style: string | null; source: string | null };
export type Styles = { asks: Ask[]; brought: Brought[] };

/** @param css - a style sheet, or the declarations of a style attribute. @param place - what a bare declaration stands on. */
export function readStyles(css: string, place: string | null = null): Styles {
  const out: Styles = { asks: [], brought: [] };
  const tree = parse(css, {
    context: place === null ? "stylesheet" : "declarationList",
    parseValue: true,
    parseCustomProperty: true,
    onParseError: () => undefined,
  });
  const variables = readVariables(tree);
  walk(tree, {
    visit: "Declaration",
    enter(node: Declaration) {
      const rule: Rule | null = this.rule;
      const at: Atrule | null = this.atrule;
      if (at?.name === "font-face" || !/^font(?:-family)?$/i.test(node.property)) return;
      const ask = readAsk(node, rule ? [...rule.block.children] : siblings(tree), variables);
      if (ask) out.asks.push({ ...ask, usedFor: place ?? (rule ? generate(rule.prelude) : "the page") });
    },
  });
  walk(tree, {
    visit: "Atrule",
    enter(node: Atrule) {
      if (node.name !== "font-face" || !node.block) return;
      const brought = readBrought([...node.block.children]);
      if (brought) out.brought.push(brought);
    },
  });
  return out;
}

const siblings = (tree: CssNode) => (tree.type === "DeclarationList" ? [...tree.children] : []);

function readVariables(tree: CssNode): Map<string, string> {
  const out = new Map<string, string>();
  walk(tree, {
    visit: "Declaration",
    enter(node: Declaration) {
      if (node.property.startsWith("--")) out.set(node.property, generate(node.value).trim());
    },
  });
  return out;
}

const valueOf = (declarations: CssNode[], property: string): string | null => {
  for (let i = declarations.length - 1; i >= 0; i--) {
    const d = declarations[i]!;
    if (d.type === "Declaration" && d.property.toLowerCase() === property) return generate(d.value).trim();
  }
  return null;
};

/** The first name of a list that is no generic one. */
export function firstName(list: string): string | null {
  for (const part of splitList(list)) {
    const name = unquote(part);
    if (name && !GENERIC.test(name)) return name;
  }
  return null;
}
const splitList = (list: string): string[] => list.match(/"[^"]*"|'[^']*'|[^,]+/g)?.map((s) => s.trim()) ?? [];
const unquote = (s: string) =>
  s
    .replace(/^(["'])([\s\S]*)\1$/, "$2")
    .replace(/\\([0-9a-f]{1,6})\s?/gi, (whole, hex: string) => {
      const code = parseInt(hex, 16);
      return code > 0 && code <= 0x10ffff ? String.fromCodePoint(code) : whole;
    })
    .replace(/\\(.)/g, "$1")
    .replace(/\s+/g, " ")
    .trim();

function readAsk(
  node: Declaration,
  declarations: CssNode[],
  variables: Map<string, string>,
): Omit<Ask, "usedFor"> | null {
  const resolve = (value: string, depth = 0): string =>
    depth > 8
      ? value
      : value.replace(/var\(\s*(--[\w-]+)\s*(?:,([^()]*))?\)/g, (_, name: string, other: string | undefined) =>
          resolve(variables.get(name) ?? other ?? "", depth + 1),
        );
  const value = resolve(generate(node.value).trim());
  if (node.property.toLowerCase() === "font-family") {
    const family = firstName(value);
    return family
      ? { family, style: writeStyle(valueOf(declarations, "font-weight"), valueOf(declarations, "font-style")) }
      : null;
  }
  // The shorthand: what stands before the size tells the style, what stands after it the family.
  const parts =
    /^(.*?)(?:^|\s)([\d.]+(?:[a-z]+|%)|(?:xx?-)?(?:small|large)|medium|smaller|larger|calc\([^)]*\))(?:\s*\/\s*[^\s"']+)?(?:\s+|(?=["']))(.+)$/i.exec(
      value,
    );
  if (!parts) return null;
  const family = firstName(parts[3]!);
  const words = parts[1]!.trim().split(/\s+/);
  return family
    ? {
        family,
        style: writeStyle(
          words.find((w) => /^(?:bold|\d{3})$/i.test(w)) ?? null,
          words.find((w) => /^(?:italic|oblique)$/i.test(w)) ?? null,
        ),
      }
    : null;
}

const WEIGHT_WORDS: Record<string, string> = {
  100: "Thin",
  200: "Extra Light",
  300: "Light",
  400: "",
  500: "Medium",
  600: "Semi Bold",
  700: "Bold",
  800: "Extra Bold",
  900: "Black",
  bold: "Bold",
  normal: "",
};

/** "Bold Italic" from the values of two properties; null: neither tells anything but the usual. */
export function writeStyle(weight: string | null, slope: string | null): string | null {
  const w = weight ? (WEIGHT_WORDS[weight.toLowerCase()] ?? "") : "";
  const s = slope && /italic|oblique/i.test(slope) ? "Italic" : "";
  return [w, s].filter(Boolean).join(" ") || null;
}

function readBrought(declarations: CssNode[]): Brought | null {
  const family = firstName(valueOf(declarations, "font-family") ?? "");
  if (!family) return null;
  const src = valueOf(declarations, "src") ?? "";
  const urls = [...src.matchAll(/url\(\s*(?:"([^"]*)"|'([^']*)'|([^)\s]*))\s*\)/g)].map(
    (m) => m[1] ?? m[2] ?? m[3] ?? "",
  );
  return {
    family,
    style: writeStyle(valueOf(declarations, "font-weight"), valueOf(declarations, "font-style")),
    source: urls.find(Boolean) ?? null,
  };
}

/** The bytes of a data address; null when it is another kind of address. */
function readDataUrl(url: string): Uint8Array | null {
  const match = /^data:[^,]*?(;base64)?,([\s\S]*)$/i.exec(url);
  if (!match) return null;
  try {
    return match[1]
      ? Uint8Array.from(atob(match[2]!.replace(/\s/g, "")), (c) => c.charCodeAt(0))
      : new TextEncoder().encode(decodeURIComponent(match[2]!));
  } catch {
    return null;
  }
}

/**
 * Joins what is asked for and what is brought along into fonts.
 * @param fetch - bytes of a font by its address; null when the document does not hold it.
 */
export async function gatherFonts(
  { asks, brought }: Styles,
  fetch: (url: string) => Promise<Uint8Array | null>,
): Promise<FoundFont[]> {
  const found = new Map<string, { font: FoundFont; uses: string[] }>();
  const keyOf = (family: string, style: string | null) => `${family.toLowerCase()} ${(style ?? "").toLowerCase()}`;
  const put = (family: string, style: string | null) => {
    const key = keyOf(family, style);
    let entry = found.get(key);
    if (!entry) {
      const font = {
        name: style ? `${family} ${style}` : family,
        family,
        style,
        embedded: false,
        subset: false,
        usedFor: null,
        characters: "",
        signature: null,
        advancesEm: null,
      };
      found.set(key, (entry = { font, uses: [] }));
    }
    return entry;
  };
  for (const { family, style, usedFor } of asks) put(family, style).uses.push(usedFor);
  for (const { family, style, source } of brought) {
    const bytes = source ? (readDataUrl(source) ?? (await fetch(source))) : null;
    const { font } = put(family, style);
    if (!bytes || font.embedded) continue;
    font.embedded = true;
    font.signature = await signFile(bytes);
  }
  return [...found.values()].map(({ font, uses }) => ({ ...font, usedFor: listUses(uses) }));
}

/** A style sheet by itself. */
export const readStyleSheet = (css: string) => gatherFonts(readStyles(css), async () => null);
