import { describe, expect, test } from "@jest/globals";
import type { InkPicture } from "../geometry/raster";
import { dropFaint, dropSpecks, dropSurfaces, findPieces, mergePieces } from "./pieces";
import { cropInk, leanInk, shrinkPicture, turnInk } from "./straighten";

/** Ink from rows of text: # full, + half, . paper. */
function inkOf(...rows: string[]): InkPicture {
  const widthPx = rows[0]!.length;
  const ink = Float32Array.from(rows.join(""), (c) => (c === "#" ? 1 : c === "+" ? 0.5 : 0));
  return { widthPx, heightPx: rows.length, ink };
}
const rowsOf = ({ widthPx, heightPx, ink }: InkPicture) =>
  Array.from({ length: heightPx }, (_, y) =>
    Array.from({ length: widthPx }, (_, x) =>
      ink[y * widthPx + x]! > 0.75 ? "#" : ink[y * widthPx + x]! > 0.25 ? "+" : ".",
    ).join(""),
  );

describe("what is not lettering", () => {
  test("a surface that begins at the border goes, a letter that touches it stays", () => {
    const letters = ["..##....##..", "..##....##..", "..##....##..", "..##....##.."];
    const wedge = inkOf("########....", "#####.......", "............", "............", ...letters);
    const paper = Array<string>(4).fill("............");
    expect(rowsOf(dropSurfaces(wedge)!)).toEqual([...paper, ...letters]);
  });

  test("where nothing begins at the border nothing is said", () => {
    expect(dropSurfaces(inkOf("............", "..##....##..", "............"))).toBeNull();
  });

  test("doubt goes where the rest is sure", () => {
    expect(rowsOf(dropFaint(inkOf("##..##..++", "##..##..++", "##..##...."))!)).toEqual([
      "##..##....",
      "##..##....",
      "##..##....",
    ]);
  });

  test("where all is doubt it stays, and so does paper", () => {
    expect(dropFaint(inkOf("++..++", "++..++"))).toBeNull();
    expect(dropFaint(inkOf("......", "......"))).toBeNull();
  });
});

describe("pieces", () => {
  const picture = inkOf("............", ".##....##...", ".##....##...", ".......##...", "..#.........", ".......##...");

  test("are connected over edges and corners", () => {
    const { pieces } = findPieces(picture, 0.5);
    expect(pieces.map((p) => [p.left, p.top, p.right, p.bottom])).toEqual([
      [1, 1, 3, 3],
      [7, 1, 9, 4],
      [2, 4, 3, 5],
      [7, 5, 9, 6],
    ]);
    expect(findPieces(inkOf("#.", ".#"), 0.5).pieces).toHaveLength(1);
    expect(findPieces(inkOf("..", ".."), 0.5).pieces).toEqual([]);
  });

  test("above each other they are one letter", () => {
    const { pieces } = findPieces(picture, 0.5);
    const boxes = mergePieces(picture, pieces);
    expect(boxes).toHaveLength(2);
    expect([boxes[1]!.left, boxes[1]!.top, boxes[1]!.right, boxes[1]!.bottom]).toEqual([7, 1, 9, 6]);
  });

  test("edges lie between pixels where the ink is half", () => {
    const soft = inkOf("........", ".+###+..", ".+###+..", ".+###+..", "........");
    const [box] = mergePieces(soft, findPieces(soft, 0.25).pieces);
    expect(box!.left).toBeCloseTo(1.5, 6);
    expect(box!.right).toBeCloseTo(5.5, 6);
    expect(box!.top).toBeCloseTo(1, 6);
  });

  test("specks go, dots of letters stay", () => {
    const wide = { widthPx: 200, heightPx: 100, ink: new Float32Array(20000) };
    const fill = (x0: number, y0: number, x1: number, y1: number, v = 1) => {
      for (let y = y0; y < y1; y++) for (let x = x0; x < x1; x++) wide.ink[y * 200 + x] = v;
    };
    fill(20, 10, 40, 90);
    fill(60, 30, 70, 90);
    fill(60, 12, 70, 22);
    fill(150, 50, 151, 51);
    fill(170, 20, 190, 60, 0.3);
    const { pieces, picture: clean } = dropSpecks(wide);
    expect(pieces).toHaveLength(3);
    expect(clean.ink[50 * 200 + 150]).toBe(0);
    expect(clean.ink[30 * 200 + 180]).toBe(0);
    expect(wide.ink[50 * 200 + 150]).toBe(1);
  });
});

describe("turning, leaning, cutting, shrinking", () => {
  test("a turn by nothing changes nothing", () => {
    const picture = inkOf("....", ".##.", ".##.", "....");
    expect(rowsOf(turnInk(picture, 0, 1))).toEqual(rowsOf(picture));
  });

  test("a quarter turn stands a bar up", () => {
    const bar = inkOf(".......", ".......", ".......", "#######", ".......", ".......", ".......");
    const turned = turnInk(bar, 90, 1);
    const column = Math.floor(turned.widthPx / 2);
    const there = Array.from({ length: turned.heightPx }, (_, y) => turned.ink[y * turned.widthPx + column]!).filter(
      (v) => v > 0.5,
    );
    expect(there.length).toBeGreaterThanOrEqual(6);
  });

  test("half the scale keeps the mean ink", () => {
    const picture = inkOf("####....", "####....", "####....", "####....");
    const small = turnInk(picture, 0, 0.5);
    const sum = small.ink.reduce((a, b) => a + b, 0);
    expect(sum).toBeCloseTo(4, 0);
  });

  test("leaning moves the top one way and the bottom the other", () => {
    const picture = inkOf("...#...", "...#...", "...#...", "...#...");
    const { picture: leaned, lean } = leanInk(picture, 1);
    expect(lean.shiftPx).toBe(2);
    const at = (y: number) =>
      leaned.ink.slice(y * leaned.widthPx, (y + 1) * leaned.widthPx).reduce((a, v, x) => a + v * x, 0);
    expect(at(0)).toBeLessThan(at(3));
    expect(leaned.ink.reduce((a, b) => a + b, 0)).toBeCloseTo(4, 5);
  });

  test("cutting adds a margin of paper", () => {
    expect(rowsOf(cropInk(inkOf("....", ".##.", "...."), { left: 1, top: 1, right: 3, bottom: 2 }, 1))).toEqual([
      "....",
      ".##.",
      "....",
    ]);
  });

  test("shrinking a picture averages its colours", () => {
    const rgba = Uint8Array.from([0, 0, 0, 255, 100, 200, 50, 255, 0, 0, 0, 255, 100, 200, 50, 255]);
    const one = shrinkPicture({ widthPx: 2, heightPx: 2, rgba }, 0.5);
    expect([one.widthPx, one.heightPx, ...one.rgba]).toEqual([1, 1, 50, 100, 25, 255]);
  });
});
