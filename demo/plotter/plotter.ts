// The stand-in for a cutting plotter and the program that drives it: takes a file, says what it would cut, in which order and how long that
// takes, or why it will not.
import { randomBytes } from "node:crypto";
import type { CutFormat, Plot, Plotter } from "../../src/contracts/plotter";
import { planCut } from "../../src/core/letter/planCut";
import { MOST_POINTS, type CutFile, type CutLine } from "./cutFile";
import { BORDER_MM, layOnFilm } from "./layOnFilm";
import { readDxf } from "./readDxf";
import { readHpgl } from "./readHpgl";
import { readSvg } from "./readSvg";

const READERS: Record<CutFormat, (text: string) => CutFile> = { svg: readSvg, dxf: readDxf, hpgl: readHpgl };
const FORMATS: Record<string, CutFormat> = {
  "image/svg+xml": "svg",
  "image/vnd.dxf": "dxf",
  "application/vnd.hp-hpgl": "hpgl",
};
/** As its maker says: a knife on a roll of film. */
const PACE = { cutMmPerS: 120, travelMmPerS: 400, liftSeconds: 0.12 };
const PLOTS_KEPT = 20;

type Refusal = { ok: false; code: string; message: string };

export class CuttingPlotter {
  private film: Plotter = { name: "Roll cutter", filmWidthMm: 610, mostLengthMm: 10_000 };
  private plots: Plot[] = [];

  about = (): Plotter => this.film;
  /** Another roll is put in. */
  load = (filmWidthMm: number) => (this.film = { ...this.film, filmWidthMm });
  find = (plotId: string): Plot | undefined => this.plots.find((p) => p.plotId === plotId);

  take(type: string, text: string): { ok: true; plot: Plot } | Refusal {
    const format = FORMATS[type.split(";")[0]!.trim()];
    if (!format) return no("unknown-form", "The plotter takes SVG, DXF and HPGL.");
    const read = READERS[format](text);
    return read.ok ? this.plan(read.lines) : no(read.code, read.message);
  }

  private plan(lines: readonly CutLine[]): { ok: true; plot: Plot } | Refusal {
    if (!lines.length) return no("empty", "There is nothing to cut in the file.");
    if (lines.reduce((sum, l) => sum + l.points.length, 0) > 2 * MOST_POINTS)
      return no("too-large", "The file has more points than the plotter holds.");
    const open = lines.filter((l) => !l.isClosed || l.points.length < 6);
    if (open.length) {
      const [x, y] = open[0]!.points.map(Math.round);
      return no(
        "open-path",
        `${open.length === 1 ? "A path is" : `${open.length} paths are`} open, the first at ${x}, ${y} mm. Nothing was cut.`,
      );
    }
    const laid = layOnFilm(lines, this.film.filmWidthMm);
    const { filmWidthMm, mostLengthMm } = this.film;
    if (!laid)
      return no(
        "too-wide",
        `A part is higher than the ${filmWidthMm - 2 * BORDER_MM} mm that the film holds. Nothing was cut.`,
      );
    if (laid.widthMm > mostLengthMm)
      return no("too-wide", `It is longer than the ${mostLengthMm / 1000} m of the roll. Nothing was cut.`);
    const { cuts, ...sums } = planCut(laid.pieces, PACE);
    const plot: Plot = {
      plotId: `p_${randomBytes(6).toString("hex")}`,
      widthMm: laid.widthMm,
      heightMm: laid.heightMm,
      cuts: cuts.map(({ piece, polygon, start }) => ({ piece, points: fromStart(polygon, start) })),
      pieces: laid.pieces.length,
      groups: laid.groups,
      movedPieces: laid.movedPieces,
      ...sums,
    };
    this.plots = [plot, ...this.plots].slice(0, PLOTS_KEPT);
    return { ok: true, plot };
  }
}

const no = (code: string, message: string): Refusal => ({ ok: false, code, message });
const fromStart = (p: Float64Array, start: number) =>
  [...p.subarray(2 * start), ...p.subarray(0, 2 * start)].map((v) => Math.round(v * 1000) / 1000);
