// A lettering as OpenRaster (Layer Stack Specification 0.0.5): a zip with the media type first and unpacked, the stack as XML, one
// picture per block, and the whole as one picture for programs that only show it.
import { strToU8, zipSync } from "fflate";
import { escapeXml } from "../../typeset/pens";

type OpenRasterInput = {
  widthPx: number;
  heightPx: number;
  /** From the lowest up; PNG. */
  layers: readonly { name: string; png: Uint8Array }[];
  /** All of it with its ground; PNG. */
  merged: Uint8Array;
  /** No larger than 256 pixels either way; PNG. */
  thumbnail: Uint8Array;
};

/** Pictures are packed already. */
const STORED = { level: 0 } as const;
/** Archives say when their entries were made; the same lettering is the same bytes. */
const MADE = { mtime: "1980-01-01T00:00:00" };

export function writeOpenRaster({ widthPx, heightPx, layers, merged, thumbnail }: OpenRasterInput): Uint8Array {
  const listed = layers.map(({ name }, i) => ({ name, src: `data/layer${i}.png` })).reverse();
  const stack = `<?xml version="1.0" encoding="UTF-8"?>
<image version="0.0.5" w="${widthPx}" h="${heightPx}">
<stack>
${listed.map(({ name, src }) => `<layer name="${escapeXml(name)}" src="${src}" x="0" y="0" opacity="1.0" visibility="visible" composite-op="svg:src-over"/>`).join("\n")}
</stack>
</image>
`;
  return zipSync(
    {
      mimetype: [strToU8("image/openraster"), STORED],
      "stack.xml": strToU8(stack),
      ...Object.fromEntries(layers.map(({ png }, i) => [`data/layer${i}.png`, [png, STORED] as const])),
      "mergedimage.png": [merged, STORED],
      "Thumbnails/thumbnail.png": [thumbnail, STORED],
    },
    MADE,
  );
}
