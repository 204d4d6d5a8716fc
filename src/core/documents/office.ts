// Fonts of text and slides: WordprocessingML and PresentationML (ISO 29500), OpenDocument text (ISO 26300). Runs are counted with the
// font that their own properties, their styles and the defaults give them, in this order.
import { Parser } from "htmlparser2";
import { DocumentError, listUses, nameOnly, signFile, type FoundFont, type Parts } from "./found";
import { writeStyle } from "./styleSheets";

type Element = { name: string; attributes: Record<string, string>; children: Element[]; text: string };

const MAX_DEPTH = 400;

/** @throws DocumentError: a part that must be there is not. */
async function readXml(parts: Parts, path: string): Promise<Element | null> {
  const bytes = parts.paths.includes(path) ? await parts.read(path) : null;
  return bytes ? parseXml(new TextDecoder().decode(bytes)) : null;
}
function parseXml(text: string): Element {
  const root: Element = { name: "", attributes: {}, children: [], text: "" };
  const open = [root];
  const parser = new Parser(
    {
      onopentag(name, attributes) {
        const element = { name, attributes, children: [], text: "" };
        if (open.length < MAX_DEPTH) open[open.length - 1]!.children.push(element);
        open.push(element);
      },
      ontext: (t) => void (open[open.length - 1]!.text += t),
      onclosetag: () => void (open.length > 1 && open.pop()),
    },
    { xmlMode: true, decodeEntities: true },
  );
  parser.end(text);
  return root;
}
function* each(element: Element, name: string): Generator<Element> {
  for (const child of element.children) {
    if (child.name === name) yield child;
    yield* each(child, name);
  }
}
const first = (element: Element | null | undefined, ...path: string[]): Element | null => {
  let at = element ?? null;
  for (const name of path) at = at?.children.find((c) => c.name === name) ?? null;
  return at;
};
const isOn = (element: Element | null, key: string) =>
  element !== null && !/^(?:0|false|off)$/.test(element.attributes[key] ?? "1");

/** Adds up what is set in each font. */
class Tally {
  private readonly fonts = new Map<
    string,
    { family: string; style: string | null; characters: number; seen: Set<string>; uses: Set<string> }
  >();
  add(family: string, style: string | null, text: string, use: string) {
    const key = `${family}\n${style ?? ""}`;
    let font = this.fonts.get(key);
    if (!font) this.fonts.set(key, (font = { family, style, characters: 0, seen: new Set(), uses: new Set() }));
    const letters = [...text];
    font.characters += letters.length;
    for (const c of letters) if (c.trim() && font.seen.size < 80) font.seen.add(c);
    if (use) font.uses.add(use);
  }
  /** Fonts that stand in a list of the document and are set nowhere. */
  mention(family: string) {
    if (![...this.fonts.values()].some((f) => f.family.toLowerCase() === family.toLowerCase()))
      this.add(family, null, "", "");
  }
  list(): FoundFont[] {
    return [...this.fonts.values()].map(({ family, style, characters, seen, uses }) => ({
      ...nameOnly(style ? `${family} ${style}` : family),
      family,
      style,
      usedFor: characters
        ? [listUses(uses), `${characters} ${characters === 1 ? "character" : "characters"}`].filter(Boolean).join(", ")
        : null,
      characters: [...seen].join(""),
    }));
  }
}

// —— text (WordprocessingML) ——

type RunLook = { family?: string; bold?: boolean; italic?: boolean };
const themeOf = (theme: Element | null) => {
  const names: Record<string, string> = {};
  for (const [key, tag] of [
    ["major", "a:majorFont"],
    ["minor", "a:minorFont"],
  ] as const)
    for (const font of theme ? each(theme, tag) : []) {
      const face = first(font, "a:latin")?.attributes.typeface;
      if (face) names[key] = face;
    }
  return names;
};

export async function readWriting(parts: Parts): Promise<FoundFont[]> {
  const body = await readXml(parts, "word/document.xml");
  if (!body || ![...each(body, "w:body")].length)
    throw new DocumentError("document-broken", "word/document.xml holds no text");
  const theme = themeOf(await readXml(parts, "word/theme/theme1.xml"));
  const styleSheet = await readXml(parts, "word/styles.xml");
  const lookOf = (properties: Element | null): RunLook => {
    const fonts = first(properties, "w:rFonts")?.attributes;
    const themed = fonts?.["w:asciiTheme"] ?? fonts?.["w:hAnsiTheme"];
    const family = themed
      ? theme[themed.startsWith("major") ? "major" : "minor"]
      : (fonts?.["w:ascii"] ?? fonts?.["w:hAnsi"]);
    const [bold, italic] = [first(properties, "w:b"), first(properties, "w:i")];
    return {
      ...(family && { family }),
      ...(bold && { bold: isOn(bold, "w:val") }),
      ...(italic && { italic: isOn(italic, "w:val") }),
    };
  };
  const styles = new Map<string, { name: string; basedOn: string | null; look: RunLook }>();
  let standard: string | null = null;
  for (const style of styleSheet ? each(styleSheet, "w:style") : []) {
    const id = style.attributes["w:styleId"] ?? "";
    styles.set(id, {
      name: first(style, "w:name")?.attributes["w:val"] ?? id,
      basedOn: first(style, "w:basedOn")?.attributes["w:val"] ?? null,
      look: lookOf(first(style, "w:rPr")),
    });
    if (style.attributes["w:type"] === "paragraph" && style.attributes["w:default"] === "1") standard = id;
  }
  const defaults = styleSheet ? [...each(styleSheet, "w:rPrDefault")][0] : null;
  const base = lookOf(first(defaults, "w:rPr"));
  const styled = (id: string | null, depth = 0): RunLook => {
    const style = id === null ? null : styles.get(id);
    return style && depth < 20 ? { ...styled(style.basedOn, depth + 1), ...style.look } : {};
  };
  const tally = new Tally();
  const pages = [body];
  for (const path of parts.paths)
    if (/^word\/(?:header|footer|footnotes|endnotes)\d*\.xml$/.test(path)) {
      const part = await readXml(parts, path);
      if (part) pages.push(part);
    }
  for (const page of pages)
    for (const paragraph of each(page, "w:p")) {
      const id = first(paragraph, "w:pPr", "w:pStyle")?.attributes["w:val"] ?? standard;
      for (const run of each(paragraph, "w:r")) {
        const own = first(run, "w:rPr");
        const character = first(own, "w:rStyle")?.attributes["w:val"] ?? null;
        const look = { ...base, ...styled(id), ...styled(character), ...lookOf(own) };
        const text = run.children
          .filter((c) => c.name === "w:t")
          .map((c) => c.text)
          .join("");
        if (text && look.family)
          tally.add(
            look.family,
            writeStyle(look.bold ? "bold" : null, look.italic ? "italic" : null),
            text,
            styles.get(id ?? "")?.name ?? "",
          );
      }
    }
  const table = await readXml(parts, "word/fontTable.xml");
  const relations = await readRelations(parts, "word/_rels/fontTable.xml.rels");
  for (const font of table ? each(table, "w:font") : [])
    if (font.attributes["w:name"]) tally.mention(font.attributes["w:name"]);
  const fonts = tally.list();
  for (const font of table ? each(table, "w:font") : []) await unpackEmbedded(font, fonts, relations, parts);
  return fonts;
}

async function readRelations(parts: Parts, path: string): Promise<Map<string, string>> {
  const xml = await readXml(parts, path);
  return new Map(
    [...(xml ? each(xml, "Relationship") : [])].map((r) => [r.attributes.Id ?? "", r.attributes.Target ?? ""]),
  );
}

const EMBEDDED = [
  ["w:embedRegular", null],
  ["w:embedBold", "Bold"],
  ["w:embedItalic", "Italic"],
  ["w:embedBoldItalic", "Bold Italic"],
] as const;

/** Embedded fonts are masked: their first 32 bytes are crossed with a key given beside them (ISO 29500-1, 17.8.1). */
async function unpackEmbedded(entry: Element, fonts: FoundFont[], relations: Map<string, string>, parts: Parts) {
  const family = entry.attributes["w:name"] ?? "";
  for (const [tag, style] of EMBEDDED) {
    const embedded = first(entry, tag);
    if (!embedded) continue;
    const target = relations.get(embedded.attributes["r:id"] ?? "");
    const bytes = target ? await parts.read(target.startsWith("/") ? target.slice(1) : `word/${target}`) : null;
    const key =
      (embedded.attributes["w:fontKey"] ?? "")
        .replace(/[^0-9a-f]/gi, "")
        .match(/../g)
        ?.map((h) => parseInt(h, 16))
        .reverse() ?? [];
    const font = fonts.find((f) => f.family === family && f.style === style) ?? fonts.find((f) => f.family === family);
    if (!font || !bytes) continue;
    font.embedded = true;
    font.subset = isOn(first(entry, tag), "w:subsetted") && embedded.attributes["w:subsetted"] !== undefined;
    font.signature ??= await signFile(key.length === 16 ? bytes.map((b, i) => (i < 32 ? b ^ key[i % 16]! : b)) : bytes);
  }
}

// —— slides (PresentationML) ——

export async function readSlides(parts: Parts): Promise<FoundFont[]> {
  const presentation = await readXml(parts, "ppt/presentation.xml");
  if (!presentation) throw new DocumentError("document-broken", "ppt/presentation.xml cannot be read");
  const theme = themeOf(await readXml(parts, parts.paths.find((p) => /^ppt\/theme\/theme\d+\.xml$/.test(p)) ?? ""));
  const nameOf = (face: string | undefined, otherwise: string | undefined) =>
    !face ? otherwise : face.startsWith("+mj") ? theme.major : face.startsWith("+mn") ? theme.minor : face;
  const tally = new Tally();
  const slides = parts.paths
    .filter((p) => /^ppt\/slides\/slide\d+\.xml$/.test(p))
    .sort((a, b) => numberIn(a) - numberIn(b));
  for (const path of slides) {
    const slide = await readXml(parts, path);
    for (const shape of slide ? each(slide, "p:sp") : []) {
      const role = [...each(shape, "p:ph")][0]?.attributes.type ?? "";
      const usual = /title/i.test(role) ? theme.major : theme.minor;
      for (const run of each(shape, "a:r")) {
        const own = first(run, "a:rPr");
        const family = nameOf(first(own, "a:latin")?.attributes.typeface, usual);
        const text = first(run, "a:t")?.text ?? "";
        const bold = /^(?:1|true)$/.test(own?.attributes.b ?? "");
        const italic = /^(?:1|true)$/.test(own?.attributes.i ?? "");
        if (family && text)
          tally.add(
            family,
            writeStyle(bold ? "bold" : null, italic ? "italic" : null),
            text,
            `slide ${numberIn(path)}${/title/i.test(role) ? " (title)" : ""}`,
          );
      }
    }
  }
  for (const name of Object.values(theme)) tally.mention(name);
  const fonts = tally.list();
  // Embedded fonts of slides are packed in a way of their own that is not unpacked here; that they are there is told.
  for (const font of each(presentation, "p:embeddedFont")) {
    const face = first(font, "p:font")?.attributes.typeface;
    for (const found of fonts) if (found.family === face) found.embedded = true;
  }
  return fonts;
}
const numberIn = (path: string) => Number(/(\d+)\.xml$/.exec(path)?.[1] ?? 0);

// —— text (OpenDocument) ——

export async function readText(parts: Parts): Promise<FoundFont[]> {
  const content = await readXml(parts, "content.xml");
  const sheet = await readXml(parts, "styles.xml");
  if (!content || !content.children.length) throw new DocumentError("document-broken", "content.xml cannot be read");
  const both = [sheet, content].filter((x): x is Element => x !== null);
  const faces = new Map<string, { family: string; sources: string[] }>();
  for (const part of both)
    for (const face of each(part, "style:font-face")) {
      const family = (face.attributes["svg:font-family"] ?? face.attributes["style:name"] ?? "").replace(/["']/g, "");
      faces.set(face.attributes["style:name"] ?? "", {
        family,
        sources: [...each(face, "svg:font-face-uri")].map((u) => u.attributes["xlink:href"] ?? ""),
      });
    }
  const styles = new Map<string, { name: string; parent: string | null; look: RunLook }>();
  let base: RunLook = {};
  for (const part of both) {
    for (const style of each(part, "style:style"))
      styles.set(style.attributes["style:name"] ?? "", {
        name: style.attributes["style:display-name"] ?? style.attributes["style:name"] ?? "",
        parent: style.attributes["style:parent-style-name"] ?? null,
        look: textLook(first(style, "style:text-properties"), faces),
      });
    for (const style of each(part, "style:default-style"))
      if (style.attributes["style:family"] === "paragraph")
        base = textLook(first(style, "style:text-properties"), faces);
  }
  const styled = (id: string | null | undefined, depth = 0): RunLook => {
    const style = id ? styles.get(id) : null;
    return style && depth < 20 ? { ...styled(style.parent, depth + 1), ...style.look } : {};
  };
  // Automatic styles have no name that a person gave.
  const named = (id: string | undefined): string => {
    const style = id ? styles.get(id) : undefined;
    return !style ? "" : /^[PT]\d+$/.test(style.name) ? named(style.parent ?? undefined) : style.name;
  };
  const tally = new Tally();
  const go = (element: Element, look: RunLook, use: string) => {
    const isText = /^text:(?:p|h|span|a)$/.test(element.name);
    const id = element.attributes["text:style-name"];
    const own = isText ? { ...look, ...styled(id) } : look;
    const place = /^text:[ph]$/.test(element.name) ? named(id) : use;
    if (isText && element.text.trim() && own.family)
      tally.add(own.family, writeStyle(own.bold ? "bold" : null, own.italic ? "italic" : null), element.text, place);
    for (const child of element.children) go(child, own, place);
  };
  for (const body of each(content, "office:body")) go(body, base, "");
  for (const { family } of faces.values()) if (family) tally.mention(family);
  const fonts = tally.list();
  for (const { family, sources } of faces.values())
    for (const source of sources) {
      const bytes = await parts.read(source.replace(/^\.\//, ""));
      const font = fonts.find((f) => f.family === family && !f.embedded);
      if (!bytes || !font) continue;
      font.embedded = true;
      font.signature = await signFile(bytes);
    }
  return fonts;
}

function textLook(properties: Element | null, faces: Map<string, { family: string }>): RunLook {
  const a = properties?.attributes ?? {};
  const family = faces.get(a["style:font-name"] ?? "")?.family ?? a["fo:font-family"]?.replace(/["']/g, "");
  return {
    ...(family && { family }),
    ...(a["fo:font-weight"] && { bold: /bold|[6-9]00/.test(a["fo:font-weight"]) }),
    ...(a["fo:font-style"] && { italic: /italic|oblique/.test(a["fo:font-style"]) }),
  };
}
