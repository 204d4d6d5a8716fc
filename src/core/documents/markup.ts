// Fonts of a page (HTML) and of a drawing (SVG): style sheets, style attributes and the attributes of text.
import { Parser } from "htmlparser2";
import type { FoundFont } from "./found";
import { firstName, gatherFonts, readStyles, writeStyle, type Styles } from "./styleSheets";

const TEXT_MOST = 24;

/** @returns styles of a page's own sheets and attributes. */
export function readMarkup(markup: string, isXml: boolean): Styles {
  const out: Styles = { asks: [], brought: [] };
  let sheet: string | null = null;
  // Text that follows a mark of its own tells where a font is used.
  const open: { name: string; waiting: { family: string; style: string | null } | null }[] = [];
  const parser = new Parser(
    {
      onopentag(name, attributes) {
        const tag = name.toLowerCase().replace(/^.*:/, "");
        if (tag === "style") sheet = "";
        const place = attributes.class ? `${tag}.${attributes.class.trim().split(/\s+/)[0]}` : tag;
        let waiting: { family: string; style: string | null } | null = null;
        if (attributes.style) out.asks.push(...readStyles(attributes.style, place).asks);
        const family = firstName(attributes["font-family"] ?? attributes.face ?? "");
        if (family)
          waiting = { family, style: writeStyle(attributes["font-weight"] ?? null, attributes["font-style"] ?? null) };
        open.push({ name: place, waiting });
      },
      ontext(text) {
        if (sheet !== null) sheet += text;
        const words = text.replace(/\s+/g, " ").trim();
        if (!words || sheet !== null) return;
        for (const element of open)
          if (element.waiting) {
            out.asks.push({
              ...element.waiting,
              usedFor: `“${words.length > TEXT_MOST ? `${words.slice(0, TEXT_MOST - 1).trimEnd()}…` : words}”`,
            });
            element.waiting = null;
          }
      },
      onclosetag(name) {
        if (name.toLowerCase().replace(/^.*:/, "") === "style" && sheet !== null) {
          const styles = readStyles(sheet.replace(/^\s*(?:<!--|<!\[CDATA\[)|(?:-->|\]\]>)\s*$/g, ""));
          out.asks.push(...styles.asks);
          out.brought.push(...styles.brought);
          sheet = null;
        }
        const closed = open.pop();
        if (closed?.waiting) out.asks.push({ ...closed.waiting, usedFor: closed.name });
      },
    },
    { xmlMode: isXml, decodeEntities: true, recognizeCDATA: true },
  );
  parser.end(markup);
  return out;
}

const readAlone = (markup: string, isXml: boolean): Promise<FoundFont[]> =>
  gatherFonts(readMarkup(markup, isXml), async () => null);
/** A page by itself: what it links to is not fetched. */
export const readPage = (html: string) => readAlone(html, false);
export const readDrawing = (svg: string) => readAlone(svg, true);
