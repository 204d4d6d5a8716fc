// Reads an SVG for cutting: paths and rectangles with their transforms, groups that are kept together. What is text is no line.
import { Parser } from "htmlparser2";
import svgpath from "svgpath";
import { flattenOutline, type Outline } from "../../src/core/geometry/outline";
import { closeLine, refuseFile, STEP_MM, type CutFile, type CutLine } from "./cutFile";

const MM: Record<string, number> = { mm: 1, cm: 10, in: 25.4, pt: 25.4 / 72, px: 25.4 / 96, "": 25.4 / 96 };

/** @returns null for a length without a number, or in a unit that no film is measured in. */
function readMm(length: string | undefined): number | null {
  const parts = /^\s*([\d.]{1,20})\s*([a-z%]{0,4})\s*$/.exec(length ?? "");
  const unit = parts && MM[parts[2]!];
  return unit === null || unit === undefined ? null : Number(parts![1]) * unit;
}

type Group = { transform: string; keeps: string | null; isShown: boolean };

export function readSvg(text: string): CutFile {
  const lines: CutLine[] = [];
  const open: Group[] = [{ transform: "", keeps: null, isShown: true }];
  let [isSvg, texts, fault] = [false, 0, ""];
  let scale = "";
  const parser = new Parser(
    {
      onopentag(name, attributes) {
        const around = open[open.length - 1]!;
        const keeps = "data-keep-together" in attributes ? (attributes.id ?? "group") : around.keeps;
        const transform = [around.transform, attributes.transform].filter(Boolean).join(" ");
        // What is defined, or is the sheet itself, is not cut.
        const isShown = around.isShown && !["defs", "clipPath", "mask"].includes(name) && attributes.id !== "ground";
        open.push({ transform, keeps, isShown });
        if (name === "svg" && !isSvg) {
          isSvg = true;
          scale = scaleOf(attributes) ?? "";
          if (!scale) fault = "The drawing does not say how large it is in millimetres.";
        }
        if (name === "text") texts++;
        const d = name === "path" ? attributes.d : name === "rect" ? rectangle(attributes) : undefined;
        if (d && isShown) {
          const read = readPath(d, `${scale} ${transform}`, keeps);
          if (read) lines.push(...read);
          else fault = "A path of the drawing cannot be read.";
        }
      },
      onclosetag: () => void open.pop(),
    },
    { xmlMode: true },
  );
  parser.end(text);
  if (!isSvg) return refuseFile("unread", "This is no SVG drawing.");
  if (texts) return refuseFile("has-text", "The drawing has live text. Save it as outlines: a plotter has no fonts.");
  return fault ? refuseFile("unread", fault) : { ok: true, lines };
}

/** From the drawing's own units to millimetres. */
function scaleOf({ width, height, viewBox }: Record<string, string>): string | null {
  const [widthMm, heightMm] = [readMm(width), readMm(height)];
  const box = (viewBox ?? "")
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  if (!widthMm || !heightMm || box.length !== 4 || box.some((v) => !Number.isFinite(v))) return null;
  const [x, y, w, h] = box as [number, number, number, number];
  return w > 0 && h > 0 ? `scale(${widthMm / w} ${heightMm / h}) translate(${-x} ${-y})` : null;
}

function rectangle({ x = "0", y = "0", width, height }: Record<string, string>): string {
  const [left, top, w, h] = [x, y, width, height].map(Number);
  return `M${left} ${top}h${w}v${h}h${-w!}z`;
}

function readPath(d: string, transform: string, group: string | null): CutLine[] | null {
  const path = svgpath(d).transform(transform.trim()).abs().unarc().unshort();
  if ((path as unknown as { err: string }).err) return null;
  const contours: { verbs: string; coords: number[] }[] = [];
  path.iterate(([verb, ...values], _, x, y) => {
    const now = contours[contours.length - 1];
    if (verb === "M") contours.push({ verbs: "M", coords: values });
    else if (!now) return;
    else if (verb === "H" || verb === "V") {
      now.verbs += "L";
      now.coords.push(...(verb === "H" ? [values[0]!, y] : [x, values[0]!]));
    } else {
      now.verbs += verb === "z" ? "Z" : verb;
      now.coords.push(...values);
    }
  });
  return contours.filter((c) => c.verbs.length > 1).map(({ verbs, coords }) => toLine(verbs, coords, group));
}

function toLine(verbs: string, coords: number[], group: string | null): CutLine {
  const outline: Outline = { verbs: verbs.replace("Z", ""), coords: Float64Array.from(coords) };
  // Two points are no polygon, but a line that is cut.
  const points = flattenOutline(outline, STEP_MM)[0] ?? outline.coords;
  return closeLine([...points], verbs.endsWith("Z"), group);
}
