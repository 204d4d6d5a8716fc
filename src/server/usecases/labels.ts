// The interface's own type for names on sheets.
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { decompress } from "woff2-encoder";

let labels: Promise<{ labelSfnt: Uint8Array; labelBoldSfnt: Uint8Array }> | null = null;
/** The interface's own type, unpacked once, for names on sheets. */
export function readLabels() {
  const folder = join(process.cwd(), "node_modules", "@fontsource", "familjen-grotesk", "files");
  const read = async (weight: number) =>
    new Uint8Array(await decompress(readFileSync(join(folder, `familjen-grotesk-latin-${weight}-normal.woff2`))));
  labels ??= Promise.all([read(400), read(700)]).then(([labelSfnt, labelBoldSfnt]) => ({ labelSfnt, labelBoldSfnt }));
  return labels;
}
