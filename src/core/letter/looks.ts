// Looks of a line: fill, outline and shadow under one name, in parts of the em, so that they suit letters of any size.
import type { Block, Fill, Outlined } from "@/contracts/lettering";

export type Look = {
  name: string;
  fill: Fill;
  outline?: Omit<Outlined, "widthMm"> & { widthEm: number };
  shadow?: { dxEm: number; dyEm: number; blurEm: number; colour: string };
};

/** Those that come with it. */
export const LOOKS: readonly Look[] = [
  { name: "Plain ink", fill: "#20262b" },
  {
    name: "Lamp glow",
    fill: "#fff4d6",
    outline: { widthEm: 0.012, colour: "#c98a00", side: "outside" },
    shadow: { dxEm: 0, dyEm: 0, blurEm: 0.16, colour: "#e0a000cc" },
  },
  {
    name: "Painted hull",
    fill: "#fbf9f4",
    outline: { widthEm: 0.03, colour: "#1c6b74", side: "outside" },
    shadow: { dxEm: 0.03, dyEm: 0.04, blurEm: 0, colour: "#20262b" },
  },
  { name: "Low tide", fill: { from: "#1c6b74", to: "#a9c4b4", angleDeg: 90 } },
  { name: "Signal red", fill: "#9c2b3b", outline: { widthEm: 0.02, colour: "#fbf9f4", side: "inside" } },
  {
    name: "Cut brass",
    fill: { from: "#f0d58a", to: "#9a6b00", angleDeg: 70 },
    outline: { widthEm: 0.01, colour: "#5c4000", side: "middle" },
    shadow: { dxEm: 0.012, dyEm: 0.016, blurEm: 0.02, colour: "#20262b99" },
  },
];

const hundredth = (v: number) => Math.round(v * 100) / 100;
const LEAST_MM = 0.05;

/** Colours of single letters are kept. @param emMm - of the letters as they stand. */
export function applyLook(block: Block, look: Look, emMm: number): Block {
  const { outline: _, shadow: __, ...plain } = block;
  return {
    ...plain,
    fill: look.fill,
    ...(look.outline && {
      outline: {
        widthMm: Math.max(LEAST_MM, hundredth(look.outline.widthEm * emMm)),
        colour: look.outline.colour,
        side: look.outline.side ?? "middle",
      },
    }),
    ...(look.shadow && {
      shadow: {
        dxMm: hundredth(look.shadow.dxEm * emMm),
        dyMm: hundredth(look.shadow.dyEm * emMm),
        blurMm: hundredth(look.shadow.blurEm * emMm),
        colour: look.shadow.colour,
      },
    }),
  };
}

/** What a line looks like, as a look that suits any size. */
export function readLook({ fill, outline, shadow }: Block, emMm: number, name: string): Look {
  const toEm = (mm: number) => Math.round((mm / emMm) * 1e4) / 1e4;
  return {
    name,
    fill,
    ...(outline && {
      outline: { widthEm: toEm(outline.widthMm), colour: outline.colour, side: outline.side ?? "middle" },
    }),
    ...(shadow && {
      shadow: {
        ...{ dxEm: toEm(shadow.dxMm), dyEm: toEm(shadow.dyMm), blurEm: toEm(shadow.blurMm) },
        colour: shadow.colour,
      },
    }),
  };
}

/** Whether a line looks so, to a hundredth of a millimetre. */
export const wears = (block: Block, look: Look, emMm: number): boolean => {
  const worn = applyLook(block, look, emMm);
  const of = ({ fill, outline, shadow }: Block) => JSON.stringify([fill, outline, shadow]);
  return of(worn) === of(outlineSide(block));
};
const outlineSide = (block: Block): Block =>
  block.outline
    ? {
        ...block,
        outline: { widthMm: block.outline.widthMm, colour: block.outline.colour, side: block.outline.side ?? "middle" },
      }
    : block;
