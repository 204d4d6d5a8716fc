// The demo library as a source of fonts: the open-licence font packages that are dependencies of this project, every part of each.
// Gives what there is to read; reading is the job's.
import { existsSync, readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";

type DemoFont = {
  /** File name, unique over the library. */
  name: string;
  /** Where it lies on this machine. */
  path: string;
  /** Where it came from, as kept in provenance: package and file. */
  source: string;
  family: string;
  packageFolder: string;
};

type Metadata = { family: string; license?: { type?: string; url?: string; attribution?: string } };

/** Its package ships it without a single drawn glyph. */
const EMPTY = "cardo-old-italic-400-italic.woff2";

/** Lists every font file of the demo library in a fixed order, all parts of a face. @param root - the project's folder. */
export function listDemoFonts(root: string): DemoFont[] {
  const fonts: DemoFont[] = [];
  for (const scope of ["@fontsource", "@fontsource-variable"]) {
    const folder = join(root, "node_modules", scope);
    if (!existsSync(folder)) continue;
    for (const id of readdirSync(folder).sort()) {
      const packageFolder = join(folder, id);
      const { family } = readMetadata(packageFolder);
      const files = readdirSync(join(packageFolder, "files"));
      const wanted =
        scope === "@fontsource" ? files.filter((f) => /-\d+-(normal|italic)\.woff2$/.test(f)) : fullestVariable(files);
      for (const name of wanted.filter((f) => f !== EMPTY).sort())
        fonts.push({
          name,
          path: join(packageFolder, "files", name),
          source: `${scope}/${id}/files/${name}`,
          family,
          packageFolder,
        });
    }
  }
  return fonts;
}

/** The variable file with most axes, upright and italic: "full", else "standard", else the weight axis alone. */
function fullestVariable(files: string[]): string[] {
  for (const axes of ["full", "standard", "wght"]) {
    const found = files.filter((f) => f.includes(`-${axes}-`) && f.endsWith(".woff2"));
    if (found.length) return found;
  }
  return [];
}

const readMetadata = (packageFolder: string) =>
  JSON.parse(readFileSync(join(packageFolder, "metadata.json"), "utf8")) as Metadata;

/** Terms that come with a package: its licence file and what its metadata says. Same for every font in it. */
export function readDemoTerms(packageFolder: string) {
  const file = join(packageFolder, "LICENSE");
  const meta = readMetadata(packageFolder);
  return {
    licenceText: existsSync(file) ? readFileSync(file, "utf8") : null,
    statement: [meta.license?.type, meta.license?.url, meta.license?.attribution].filter(Boolean).join(" · "),
    attribution: meta.license?.attribution ?? null,
  };
}
