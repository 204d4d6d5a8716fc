// The zips that the open collection and the makers hand out: tidy ones, and the ways in which real ones are not.
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { zipSync, type Zippable } from "fflate";
import ofl from "spdx-license-list/licenses/OFL-1.1.json" with { type: "json" };
import apache from "spdx-license-list/licenses/Apache-2.0.json" with { type: "json" };
import cc0 from "spdx-license-list/licenses/CC0-1.0.json" with { type: "json" };
import { fileNameOf } from "../foundry/build";
import type { FamilyPlan } from "../foundry/families";
import { writeCollection, writeWoff } from "../foundry/write/writeFont";
import * as terms from "./terms";

const text = (s: string) => new TextEncoder().encode(s);
const PREVIEW = Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10]);

/** Reads a drawn font. */
const drawn = (folder: string, family: FamilyPlan, style: string, ending: "ttf" | "otf") =>
  new Uint8Array(readFileSync(join(folder, `${fileNameOf(family.family, style)}.${ending}`)));

type Packing = (family: FamilyPlan, read: (style: string, ending: "ttf" | "otf") => Uint8Array) => Zippable;
const files = (family: FamilyPlan, read: Parameters<Packing>[1], endings: ("ttf" | "otf")[], folder = ""): Zippable =>
  Object.fromEntries(
    family.styles.flatMap(({ style }) =>
      endings.map((e) => [`${folder}${fileNameOf(family.family, style)}.${e}`, read(style, e)] as const),
    ),
  );

/** How each maker packs. What is not listed is packed tidily with the licence its names state. */
const PACKINGS: Record<string, Packing> = {
  "Fairlead Flex": (f, read) => ({
    ...files(f, read, ["ttf"]),
    "OFL.txt": text(`${f.copyright}\n\n${ofl.licenseText}`),
  }),
  "Wrackline Script": (f, read) => ({
    ...files(f, read, ["otf"], "Wrackline_Script/OTF/"),
    ...files(f, read, ["ttf"], "Wrackline_Script/TTF/"),
    "Wrackline_Script/README.txt": text(terms.PERSONAL_EN),
    "Wrackline_Script/preview.png": PREVIEW,
    "__MACOSX/Wrackline_Script/._README.txt": text("x"),
  }),
  Driftcask: (f, read) => ({
    "Driftcask Regular.zip": zipSync({ "Driftcask-Regular.ttf": read("Regular", "ttf") }),
    "Driftcask Bold.zip": zipSync({ "Driftcask-Bold.ttf": read("Bold", "ttf") }),
    "LIESMICH.txt": text(terms.SHAREWARE_DE),
  }),
  Bytebuoy: (f, read) => ({
    ...files(f, read, ["ttf"]),
    "liesmich.txt": text(terms.ASK_FIRST_DE),
    "Thumbs.db": text("x"),
  }),
  "Netfloat Dots": (f, read) => ({
    ...files(f, read, ["ttf"]),
    "web/NetfloatDots-Regular.woff": writeWoff(read("Regular", "ttf")),
    "LISEZ-MOI.txt": text(terms.CREDIT_FR),
  }),
  "Brassrail Inline": (f, read) => files(f, read, ["otf"]),
  Saltgrit: (f, read) => ({ ...files(f, read, ["ttf"], "Saltgrit/"), "Saltgrit/LxAME.txt": text(terms.FREE_ES) }),
  "Railyard Signs": (f, read) => ({
    "railyard.ttc": writeCollection([read("Regular", "ttf")]),
    "order form.url": text("x"),
  }),
  "Weatherglass Signs": (f, read) => ({ ...files(f, read, ["ttf"]), "Licence.rtf": text(terms.WEATHER_RTF) }),
  Gangway: (f, read) => ({ ...files(f, read, ["ttf"]), "LICENCE.txt": text(terms.PERSONAL_ONLY_EN) }),
  "Breakwater Wide": (f, read) => ({
    ...files(f, read, ["otf"], "desktop/"),
    ...files(f, read, ["ttf"], "desktop/ttf/"),
    "licence.html": text(terms.BREAKWATER_HTML),
  }),
  // One of its two files was cut off on its way to the server.
  Adzemark: (f, read) => ({
    "Adzemark-Regular.otf": read("Regular", "otf"),
    "Adzemark-Bold.otf": read("Bold", "otf").slice(0, 9000),
    "readme.txt": text(terms.ADZE_README),
  }),
};

const LICENCE_FILES: [RegExp, string, { licenseText: string }][] = [
  [/SIL Open/, "OFL.txt", ofl],
  [/Apache/, "LICENSE.txt", apache],
  [/CC0/, "LICENSE.txt", cc0],
];

/** The zip of a family, as its maker packs it. @param folder - the drawn fonts. */
export function packFamily(folder: string, family: FamilyPlan): Uint8Array {
  const read = (style: string, ending: "ttf" | "otf") => drawn(folder, family, style, ending);
  const packing = PACKINGS[family.family];
  if (packing) {
    const zip = zipSync(packing(family, read));
    // This maker's packer wrote names in the code page of his machine.
    return family.family === "Saltgrit"
      ? replaceBytes(zip, text("LxAME"), Uint8Array.from([0x4c, 0x90, 0x41, 0x4d, 0x45]))
      : zip;
  }
  const [, name, licence] = LICENCE_FILES.find(([stated]) => stated.test(family.licence ?? ""))!;
  return zipSync({
    ...files(family, read, ["ttf", "otf"], `${family.family}/`),
    [`${family.family}/${name}`]: text(`${family.copyright}\n\n${licence.licenseText}`),
  });
}

/** A copy with bytes changed wherever a pattern stands: in a zip, in local headers and the directory alike. */
export function replaceBytes(bytes: Uint8Array, find: Uint8Array, put: Uint8Array): Uint8Array {
  const out = bytes.slice();
  for (let i = 0; i + find.length <= out.length; i++) if (find.every((b, k) => out[i + k] === b)) out.set(put, i);
  return out;
}

/** What the shop delivers for one style. */
export function packBought(folder: string, family: FamilyPlan, style: string, licence: string): Uint8Array {
  const base = fileNameOf(family.family, style);
  return zipSync({
    [`${base}/${base}.otf`]: drawn(folder, family, style, "otf"),
    [`${base}/${base}.ttf`]: drawn(folder, family, style, "ttf"),
    [`${base}/Licence.txt`]: text(licence),
  });
}
