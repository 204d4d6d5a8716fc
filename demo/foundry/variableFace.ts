// The variable family: nine masters of one skeleton on two axes, weight and width. Strokes stay apart, so that every
// master has the same points.
import type { Design } from "./design";
import { drawFace, type Face } from "./face";
import type { VariablePlan } from "./write/writeFont";

/** Stem and thin stroke at the ends of the weight axis; counter width at the ends of the width axis. */
const WEIGHT = { light: { stem: 46, thin: 44 }, black: { stem: 176, thin: 138 } };
const WIDTH = { narrow: 0.72, wide: 1.34 };

/** @returns the default master, and how the others differ from it. */
export function drawVariable(base: Design): { face: Face; plan: VariablePlan } {
  const at = (weight: -1 | 0 | 1, width: -1 | 0 | 1): Face =>
    drawFace(
      {
        ...base,
        ...(weight < 0 ? WEIGHT.light : weight > 0 ? WEIGHT.black : {}),
        width: base.width * (width < 0 ? WIDTH.narrow : width > 0 ? WIDTH.wide : 1),
      },
      { keepOverlaps: true },
    );
  const face = at(0, 0);
  const places: [-1 | 0 | 1, -1 | 0 | 1][] = [
    [-1, 0],
    [1, 0],
    [0, -1],
    [0, 1],
    [-1, -1],
    [-1, 1],
    [1, -1],
    [1, 1],
  ];
  return {
    face,
    plan: {
      axes: [
        { tag: "wght", name: "Weight", min: 300, default: 400, max: 900 },
        { tag: "wdth", name: "Width", min: 75, default: 100, max: 125 },
      ],
      masters: [
        { peak: [0, 0], glyphs: face.glyphs },
        ...places.map(([weight, width]) => ({ peak: [weight, width], glyphs: at(weight, width).glyphs })),
      ],
      instances: [
        ["Light", 300, 100],
        ["Regular", 400, 100],
        ["Bold", 700, 100],
        ["Black", 900, 100],
        ["Condensed", 400, 75],
        ["Condensed Bold", 700, 75],
        ["Expanded", 400, 125],
        ["Expanded Black", 900, 125],
      ].map(([name, weight, width]) => ({ name: name as string, coordinates: [weight as number, width as number] })),
      values: [
        { axis: 0, value: 300, name: "Light" },
        { axis: 0, value: 400, name: "Regular", elided: true },
        { axis: 0, value: 700, name: "Bold" },
        { axis: 0, value: 900, name: "Black" },
        { axis: 1, value: 75, name: "Condensed" },
        { axis: 1, value: 100, name: "Normal", elided: true },
        { axis: 1, value: 125, name: "Expanded" },
      ],
    },
  };
}
