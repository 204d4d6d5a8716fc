// Fonts of a PDF. Names come from the resources of every page and what they reach (ISO 32000-2, 7.8.3 and 9.6–9.8), whether or not a
// letter is set in them; letters, places and embedded outlines from the page reader, which turns every kind of font file into OpenType.
import { PDFArray, PDFDict, PDFDocument, PDFName, PDFRef, PDFStream, type PDFObject, type PDFPage } from "pdf-lib";
import { OPS, type PDFDocumentProxy } from "pdfjs-dist/legacy/build/pdf.mjs";
import { extractDescriptors } from "../descriptors/extractDescriptors";
import { openFace } from "../outlines/openFace";
import { signDrawn, type DrawnFont } from "./drawnFont";
import { DocumentError, listUses, type FoundFont } from "./found";
import { isSubsetName, partName } from "./fontNames";
import { dictOf, entries, look, openPages } from "./pdfObjects";

/** Pages whose letters are looked at; names are taken from all. */
const PAGES_LOOKED_AT = 120;
/** Written where a font has no name, as drawn fonts (Type 3) may. */
const NO_NAME = "[none]";

type Named = { name: string; fileName: string | null; embedded: boolean };
type Shown = {
  name: string;
  embedded: boolean;
  pages: Set<number>;
  /** Character → the character that reaches its glyph in `data`. */
  glyphs: Map<string, string>;
  advancesEm: Record<string, number>;
  letters: number;
  data: Uint8Array | null;
  /** Of a drawn font: its glyphs' pages, by the names that `glyphs` holds. */
  drawn: DrawnFont | null;
};

/**
 * @param objects - the file's, as `openObjects` gives them. @param hasTime - asked before each page; once it is false the pages that were seen must do.
 * @throws DocumentError
 */
export async function readPdf(
  bytes: Uint8Array,
  objects: PDFDocument | null,
  hasTime: () => boolean,
): Promise<FoundFont[]> {
  const named = listNamed(objects);
  const shown = await listShown(bytes, named !== null, hasTime);
  if (!named && !shown) throw new DocumentError("document-broken", "neither its objects nor its pages can be read");
  const drawn = shown ?? [];
  const list: Named[] = named ?? drawn.map(({ name, embedded }) => ({ name, fileName: null, embedded }));
  // Fonts without a name are told apart by what is shown of each.
  const nameless = drawn.filter((s) => s.name === NO_NAME);
  let met = 0;
  return list.map((font) =>
    describe(
      font,
      font.name === NO_NAME
        ? nameless.slice(met, ++met)
        : drawn.filter((s) => s.name === font.name || s.name === font.fileName),
    ),
  );
}

function describe({ name, embedded }: Named, drawn: readonly Shown[]): FoundFont {
  const most = drawn.reduce<Shown | null>((a, b) => (a && a.glyphs.size >= b.glyphs.size ? a : b), null);
  const pages = [...new Set(drawn.flatMap((d) => [...d.pages]))].sort((a, b) => a - b);
  const letters = drawn.reduce((n, d) => n + d.letters, 0);
  return {
    name,
    ...(name === NO_NAME ? { family: null, style: null } : partName(name)),
    embedded,
    subset: isSubsetName(name),
    usedFor: pages.length ? `${listPages(pages)}, ${letters} ${letters === 1 ? "character" : "characters"}` : null,
    characters: most ? [...most.glyphs.keys()].slice(0, 80).join("") : "",
    signature: most?.drawn ? signDrawn(most.drawn, most.glyphs, most.advancesEm) : most?.data ? signShown(most) : null,
    advancesEm: most && Object.keys(most.advancesEm).length ? most.advancesEm : null,
  };
}

/** "page 1", "pages 1–3 and 7". */
function listPages(pages: readonly number[]): string {
  const runs: [number, number][] = [];
  for (const page of pages) {
    const last = runs[runs.length - 1];
    if (last && page === last[1] + 1) last[1] = page;
    else runs.push([page, page]);
  }
  const words = listUses(runs.map(([a, b]) => (a === b ? String(a) : `${a}–${b}`)));
  return `${pages.length === 1 ? "page" : "pages"} ${words}`;
}

function signShown({ data, glyphs }: Shown): Uint8Array | null {
  try {
    const face = openFace(data!);
    return extractDescriptors({
      ...face,
      glyphOf: (codePoint) => {
        const reached = glyphs.get(String.fromCodePoint(codePoint));
        return reached ? face.glyphOf(reached.codePointAt(0)!) : null;
      },
    });
  } catch {
    return null;
  }
}

/** Every font that a page can reach; null when the file's objects cannot be read (damaged, or enciphered): the page reader may still open it. */
function listNamed(document: PDFDocument | null): Named[] | null {
  if (!document) return null;
  const found: Named[] = [];
  const seen = new Set<PDFObject>();
  const walk = (resources: PDFObject | undefined, depth: number) => {
    const dict = look(document, resources);
    if (!(dict instanceof PDFDict) || depth > 24) return;
    for (const [, value] of entries(document, dict, "Font")) {
      const font = look(document, value);
      const key = value instanceof PDFRef ? value : font;
      if (!(font instanceof PDFDict) || !key || seen.has(key)) continue;
      seen.add(key);
      found.push(describeNamed(document, font));
      // The glyphs of a drawn font are small pages of their own.
      walk(font.get(PDFName.of("Resources")), depth + 1);
    }
    for (const kind of ["XObject", "Pattern"])
      for (const [, value] of entries(document, dict, kind)) {
        const stream = look(document, value);
        if (!stream || seen.has(stream)) continue;
        seen.add(stream);
        walk(dictOf(stream)?.get(PDFName.of("Resources")), depth + 1);
      }
  };
  try {
    for (const page of document.getPages()) {
      walk(page.node.Resources(), 0);
      for (const appearance of appearancesOf(document, page)) walk(appearance.get(PDFName.of("Resources")), 0);
    }
  } catch {
    return found.length ? found : null;
  }
  return found;
}

/** Streams that annotations and form fields are drawn by. */
function appearancesOf(document: PDFDocument, page: PDFPage): PDFDict[] {
  const annotations = page.node.Annots();
  if (!(annotations instanceof PDFArray)) return [];
  return annotations.asArray().flatMap((value) => {
    const annotation = look(document, value);
    const ways = annotation instanceof PDFDict ? look(document, annotation.get(PDFName.of("AP"))) : null;
    const normal = ways instanceof PDFDict ? look(document, ways.get(PDFName.of("N"))) : null;
    if (normal instanceof PDFStream) return [normal.dict];
    if (!(normal instanceof PDFDict)) return [];
    return normal.values().flatMap((state) => dictOf(look(document, state)) ?? []);
  });
}

function describeNamed(document: PDFDocument, described: PDFDict): Named {
  const nameIn = (dict: PDFDict, key: string) => {
    const value = look(document, dict.get(PDFName.of(key)));
    return value instanceof PDFName ? value.decodeText() : null;
  };
  const name = nameIn(described, "BaseFont") ?? NO_NAME;
  const isDrawn = nameIn(described, "Subtype") === "Type3";
  const below = look(document, described.get(PDFName.of("DescendantFonts")));
  const first = below instanceof PDFArray ? look(document, below.asArray()[0]) : null;
  const holder = first instanceof PDFDict ? first : described;
  const descriptor = look(document, holder.get(PDFName.of("FontDescriptor")));
  const has = (key: string) =>
    descriptor instanceof PDFDict && look(document, descriptor.get(PDFName.of(key))) instanceof PDFStream;
  return {
    name,
    fileName: descriptor instanceof PDFDict ? nameIn(descriptor, "FontName") : null,
    embedded: isDrawn || ["FontFile", "FontFile2", "FontFile3"].some(has),
  };
}

/** What pages show. @param isKnown - the objects were read: a file that only the page reader refuses is still answered. */
async function listShown(bytes: Uint8Array, isKnown: boolean, hasTime: () => boolean): Promise<Shown[] | null> {
  const task = openPages(bytes, { fontExtraProperties: true, disableFontFace: false, maxImageSize: 4096 });
  try {
    return await lookThrough(await task.promise, hasTime);
  } catch (error) {
    if ((error as Error).name === "PasswordException")
      throw new DocumentError("document-protected", String((error as Error).message));
    if (isKnown) return null;
    throw new DocumentError("document-broken", String((error as Error).message));
  } finally {
    await task.destroy();
  }
}

type ShownGlyph = { unicode: string; fontChar: string; operatorListId?: string | null; width: number };
type PageFont = {
  name: string;
  missingFile: boolean;
  data?: Uint8Array;
  isType3Font?: boolean;
  charProcOperatorList?: DrawnFont["glyphPages"];
};

async function lookThrough(document: PDFDocumentProxy, hasTime: () => boolean): Promise<Shown[]> {
  const found = new Map<string, Shown>();
  for (let n = 1; n <= Math.min(document.numPages, PAGES_LOOKED_AT) && hasTime(); n++) {
    const page = await document.getPage(n);
    const { fnArray, argsArray } = await page.getOperatorList();
    let current: Shown | null = null;
    for (let i = 0; i < fnArray.length; i++) {
      const args = argsArray[i] as unknown[] | null;
      if (fnArray[i] === OPS.setFont)
        current = shownOf(found, String(args![0]), page.commonObjs.get(args![0] as string) as PageFont);
      else if (fnArray[i] === OPS.showText && current) take(current, args![0] as (ShownGlyph | number)[], n);
    }
    page.cleanup();
  }
  return [...found.values()];
}

function shownOf(found: Map<string, Shown>, id: string, font: PageFont): Shown {
  let shown = found.get(id);
  if (!shown) {
    const isFile = !font.missingFile && !font.isType3Font && font.data instanceof Uint8Array;
    shown = {
      // The page reader calls a font without a name by its kind.
      name: font.isType3Font && font.name === "Type3" ? NO_NAME : font.name || NO_NAME,
      embedded: !font.missingFile,
      pages: new Set(),
      glyphs: new Map(),
      advancesEm: {},
      letters: 0,
      data: isFile ? Uint8Array.from(font.data!) : null,
      drawn:
        font.isType3Font && font.charProcOperatorList
          ? { toText: unitsOf(font), glyphPages: font.charProcOperatorList }
          : null,
    };
    found.set(id, shown);
  }
  return shown;
}

const THOUSANDTHS = [0.001, 0, 0, 0.001, 0, 0];
/** What the page reader calls that which takes glyph units to text units. */
const OF_GLYPHS = "font";
const unitsOf = (font: PageFont): number[] =>
  (Reflect.get(font, `${OF_GLYPHS}Matrix`) as number[] | undefined) ?? THOUSANDTHS;

function take(shown: Shown, glyphs: readonly (ShownGlyph | number)[], page: number) {
  for (const glyph of glyphs) {
    if (typeof glyph !== "object" || !glyph?.unicode) continue;
    shown.pages.add(page);
    shown.letters++;
    if ([...glyph.unicode].length !== 1 || !glyph.unicode.trim()) continue;
    const reachedBy = shown.drawn ? (glyph.operatorListId ?? "") : glyph.fontChar;
    if (!shown.glyphs.has(glyph.unicode)) shown.glyphs.set(glyph.unicode, reachedBy);
    // Widths of drawn fonts are in the units of their glyphs.
    shown.advancesEm[glyph.unicode] = glyph.width * (shown.drawn?.toText[0] ?? 0.001);
  }
}
