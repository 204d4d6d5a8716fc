// Words outside of Latin: their letters are described when they are first asked for, and compared as all others are.
import { beforeAll, describe, expect, test } from "@jest/globals";
import { drawLine } from "../../../tests/fixtures/drawLine";
import { demoPart } from "../../../tests/fixtures/demoFont";
import { extractDescriptors, SignatureIndex } from "../descriptors/extractDescriptors";
import { openFont } from "../open/openFont";
import { joinParts } from "../outlines/joinParts";
import { openFace, type OpenFace } from "../outlines/openFace";
import { readPicture } from "../picture/readPicture";
import { inlineExecutor } from "./executor";
import { identifyLine } from "./identifyLine";

const CYRILLIC = [
  "lora",
  "alegreya",
  "bitter",
  "spectral",
  "merriweather",
  "rubik",
  "manrope",
  "philosopher",
  "oswald",
];
const GREEK = ["alegreya", "alegreya-sans", "cardo", "comfortaa", "ibm-plex-sans", "manrope", "press-start-2p"];
const faces = new Map<string, OpenFace>();
let index: SignatureIndex;

async function open(id: string): Promise<OpenFace> {
  const parts = ["latin", ...(CYRILLIC.includes(id) ? ["cyrillic"] : []), ...(GREEK.includes(id) ? ["greek"] : [])];
  const opened = await Promise.all(parts.map(async (part) => openFace((await openFont(demoPart(id, part))).sfnt)));
  return joinParts(opened);
}
beforeAll(async () => {
  const rows = [];
  for (const id of [...new Set([...CYRILLIC, ...GREEK, "arvo", "karla"])]) {
    const face =
      id === "arvo" || id === "karla" ? openFace((await openFont(demoPart(id, "latin"))).sfnt) : await open(id);
    faces.set(id, face);
    rows.push({ id, family: id, signature: extractDescriptors(face) });
  }
  index = SignatureIndex.of(rows);
});
const identify = async (id: string, text: string) => {
  await index.describeMore(text, (entry, char) => {
    const face = faces.get(index.ids[entry]!)!;
    return face.glyphOf(char.codePointAt(0)!) ? face : null;
  });
  const lines = readPicture(drawLine(faces.get(id)!, text, { sizePx: 60 }))!;
  const load = (styleId: string) => faces.get(styleId)!;
  return identifyLine(lines, text, index, inlineExecutor(index, load), 5);
};

describe("words of other scripts", () => {
  test.each(CYRILLIC)("Cyrillic in %s", async (id) => {
    const { matches } = await identify(id, "Маяк и шлюпка");
    expect(matches[0]!.styleId).toBe(id);
    expect(matches[0]!.letters.every((l) => l.agreement > 0.6)).toBe(true);
    // What lacks the letters is no match.
    expect(matches.map((m) => m.styleId)).not.toContain("arvo");
  });

  test.each(GREEK)("Greek in %s", async (id) => {
    expect((await identify(id, "Φάρος και λιμάνι")).matches[0]!.styleId).toBe(id);
  });

  test("letters are described once, and another thread sees the same", async () => {
    const fresh = SignatureIndex.from(index.share());
    const asked: string[] = [];
    const faceOf = (entry: number, char: string) => (asked.push(`${entry} ${char}`), null);
    await fresh.describeMore("Щука", faceOf);
    const first = asked.length;
    expect(first).toBeGreaterThan(0);
    expect(await fresh.describeMore("Щука", faceOf)).toBe(false);
    expect(asked).toHaveLength(first);
    const other = SignatureIndex.from(fresh.share());
    expect(other.at("Щ")).toBe(fresh.at("Щ"));
    expect(other.box(0, other.at("Щ"))).toBeNull();
    const lora = other.ids.indexOf("lora");
    await index.describeMore("М", (entry) => faces.get(index.ids[entry]!)!);
    expect(SignatureIndex.from(index.share()).box(lora, index.at("М"))).toEqual(index.box(lora, index.at("М")));
    expect(index.only("lora").box(0, index.at("М"))).toEqual(index.box(lora, index.at("М")));
  });

  test("a letter is known when all faces were gone through, also where two questions ask for it at once", async () => {
    const fresh = SignatureIndex.from(index.share());
    const known: boolean[] = [];
    const describe = () =>
      fresh.describeMore(
        "Ѫ",
        () => null,
        async () => void known.push(fresh.at("Ѫ") >= 0),
      );
    expect((await Promise.all([describe(), describe()])).sort()).toEqual([false, true]);
    expect(known.slice(0, fresh.ids.length)).not.toContain(true);
    expect(fresh.at("Ѫ")).toBeGreaterThan(0);
    expect([...fresh.share().more.keys()].filter((c) => c === "Ѫ")).toHaveLength(1);
  });
});
