// The parts of gifenc that are used; the package ships no types.
declare module "gifenc" {
  type Colour = number[];
  type Format = "rgb565" | "rgb444" | "rgba4444";
  export type Encoder = {
    writeFrame(
      index: Uint8Array,
      width: number,
      height: number,
      options: {
        palette: Colour[];
        delay: number;
        first: boolean;
        transparent?: boolean;
        transparentIndex?: number;
        dispose?: number;
      },
    ): void;
    bytes(): Uint8Array;
  };
  export function GIFEncoder(options: { auto: boolean }): Encoder;
  export function quantize(
    rgba: Uint8Array,
    most: number,
    options: { format: Format; oneBitAlpha?: boolean },
  ): Colour[];
  export function applyPalette(rgba: Uint8Array, palette: Colour[], format: Format): Uint8Array;
  const gifenc: {
    GIFEncoder: typeof GIFEncoder;
    quantize: typeof quantize;
    applyPalette: typeof applyPalette;
  };
  export default gifenc;
}
