import { beforeAll, describe, expect, test } from "@jest/globals";
import { drawLine } from "../../../tests/fixtures/drawLine";
import { readDemo } from "../../../tests/fixtures/demoFont";
import { chooseNear } from "../identify/ranking/whole";
import { wordingOf } from "../picture/wording";
import { readPicture } from "../picture/readPicture";
import type { OpenFace } from "../outlines/openFace";
import { extractDescriptors, SignatureIndex } from "./extractDescriptors";
import { partByShape } from "./leaders";

const FACES = [
  ["zilla-slab", 700],
  ["work-sans", 400],
  ["lora", 400],
  ["anton", 400],
  ["courier-prime", 400],
] as const;
const faces = new Map<string, OpenFace>();
let index: SignatureIndex;
/** Each face eighty times with letters a little narrower or wider: kin, as a family's widths are. */
beforeAll(async () => {
  const rows: { id: string; family: string; signature: Uint8Array }[] = [];
  for (const [family, weight] of FACES) {
    const { face } = await readDemo(family, weight);
    faces.set(family, face);
    for (let k = 0; k < 80; k++) {
      const by = 1 + 0.0015 * (k - 40);
      const outline = (id: number) => {
        const { verbs, coords } = face.outline(id);
        return { verbs, coords: coords.map((v, i) => (i % 2 ? v : v * by)) };
      };
      const polygons = (id: number) => face.polygons(id).map((p) => p.map((v, i) => (i % 2 ? v : v * by)));
      const wider = { ...face, outline, polygons, advanceFu: (id: number) => face.advanceFu(id) * by };
      rows.push({ id: `${family} ${k}`, family, signature: extractDescriptors(wider) });
    }
  }
  index = SignatureIndex.of(rows);
});

describe("a large index parted by shape", () => {
  test("every entry follows one leader, which is among its followers", () => {
    const { leaders, members, starts } = partByShape(index);
    expect([...members].sort((a, b) => a - b)).toEqual(index.ids.map((_, i) => i));
    leaders.forEach((leader, i) => expect([...members.subarray(starts[i], starts[i + 1])]).toContain(leader));
    expect(leaders.length).toBeGreaterThan(2);
  });

  test("kin follow the same leaders", () => {
    const { members, starts, leaders } = partByShape(index);
    const mixed = [...leaders].filter((_, i) => {
      const families = new Set([...members.subarray(starts[i], starts[i + 1])].map((m) => index.families[m]));
      return families.size > 1;
    });
    expect(mixed.length / leaders.length).toBeLessThan(0.35);
  });

  test("a line is looked for among those that resemble it", () => {
    const parted = SignatureIndex.from(index.share());
    parted.leaders = partByShape(index, 3);
    expect(parted.leaders.leaders.length).toBeGreaterThan(70);
    for (const [family] of FACES) {
      const { plain } = readPicture(drawLine(faces.get(family)!, "Harbour", { sizePx: 60 }))!;
      const near = chooseNear(plain, wordingOf("Harbour"), parted, { at: 0, of: 1 })!;
      expect(near.length).toBeLessThan(0.5 * index.ids.length);
      expect([...near].some((entry) => index.ids[entry] === `${family} 40`)).toBe(true);
    }
    // Few entries are looked at one by one.
    const line = readPicture(drawLine(faces.get("lora")!, "Quay", { sizePx: 60 }))!.plain;
    expect(chooseNear(line, wordingOf("Quay"), index, { at: 0, of: 1 })).toBeNull();
  });
});
