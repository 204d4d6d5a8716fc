// Edits of poses, motions to begin with, title cards, and what is told of a motion.
import { describe, expect, test } from "@jest/globals";
import type { StyleId } from "@/contracts/ids";
import { LetteringDocument } from "@/contracts/lettering";
import { blockOf, documentOf } from "../../../tests/fixtures/lettering";
import { contrastAt, lowestContrast } from "./contrastOver";
import { addPose, changeAxis, changeBlockPose, changeRatio, changeTime, removePose } from "./editPoses";
import { MOTION_LOOKS, startMotion } from "./motionLooks";
import { readingMs } from "./readingTime";
import { CARDS, layTitleCard, SAFE_SHARE } from "./titleCards";

const begun = () => startMotion(documentOf(blockOf("Lamp")), MOTION_LOOKS[0]!, () => ({ emMm: 50, weights: null }));
const timesOf = ({ motion }: LetteringDocument) => motion!.poses.map((p) => p.timeMs);

describe("poses", () => {
  test("what is put back as it is set is no longer said", () => {
    let document = changeBlockPose(begun(), "p_stands", "line-1", { dxMm: 12, scale: 1.2 });
    document = changeAxis(document, "p_stands", "line-1", "wght", 300);
    expect(document.motion!.poses[1]!.blocks["line-1"]).toEqual({ dxMm: 12, scale: 1.2, axes: { wght: 300 } });
    document = changeBlockPose(document, "p_stands", "line-1", { dxMm: 0, scale: 1 });
    document = changeAxis(document, "p_stands", "line-1", "wght", null);
    expect(document.motion!.poses[1]!.blocks).toEqual({});
  });

  test("a new pose stands half way to the next, or a second after the last", () => {
    const between = addPose(begun(), "p_stands", "p_new");
    expect(timesOf(between)).toEqual([0, 600, 1600, 2600, 3100]);
    const after = addPose(begun(), "p_gone", "p_new");
    expect(timesOf(after)).toEqual([0, 600, 2600, 3100, 4100]);
    expect(after.motion!.durationMs).toBe(4100);
  });

  test("a time that is changed takes the later ones along, and stays behind the one before", () => {
    const later = changeTime(begun(), "p_leaves", 3600);
    expect(timesOf(later)).toEqual([0, 600, 3600, 4100]);
    expect(later.motion!.durationMs).toBe(4100);
    expect(timesOf(changeTime(begun(), "p_leaves", 100))).toEqual([0, 600, 600, 1100]);
  });

  test("the last pose takes the motion with it", () => {
    const left = begun().motion!.poses.reduce((document, pose) => removePose(document, pose.id), begun());
    expect(left.motion).toBeUndefined();
  });

  test("another frame keeps its shorter side, and lines about its middle", () => {
    const wide = changeRatio(documentOf(blockOf("Lamp", { at: { xMm: 150, yMm: 80 } })), "16:9");
    const tall = changeRatio(wide, "9:16");
    expect([wide.sheet.widthMm, wide.sheet.heightMm, tall.sheet.widthMm, tall.sheet.heightMm]).toEqual([
      284.4, 160, 160, 284.4,
    ]);
    expect(tall.blocks[0]!.at).toEqual({ xMm: expect.closeTo(80, 6), yMm: expect.closeTo(142.2, 6) });
  });
});

test("every motion to begin with ends as it should, and is a document that is taken", () => {
  for (const look of MOTION_LOOKS) {
    const document = startMotion(
      documentOf(blockOf("Keepers of the Lamp")),
      look,
      () => ({ emMm: 50, weights: { min: 100, max: 900 } }),
      1800,
    );
    expect(LetteringDocument.safeParse(document).success).toBe(true);
    const { poses, durationMs } = document.motion!;
    expect(poses[1]!.blocks).toEqual({});
    expect(poses[2]!.timeMs - poses[1]!.timeMs).toBe(1800);
    expect(durationMs).toBeGreaterThanOrEqual(poses[3]!.timeMs);
  }
});

describe("title cards", () => {
  const faces = {
    heavy: { styleId: "s_aaaaaaaaaaaa" as StyleId, coordinates: { wght: 800 } },
    light: { styleId: "s_aaaaaaaaaaaa" as StyleId, coordinates: { wght: 200 } },
  };
  const lines = [
    { id: "l_0", text: "Keepers of the Lamp" },
    { id: "l_1", text: "Part 3: Fog + Brass" },
  ];
  test.each([...CARDS])("%s is a document that is taken, within the safe part of the frame", (card) => {
    const document = layTitleCard(card, lines, faces, "#f3efe6");
    expect(LetteringDocument.safeParse(document).success).toBe(true);
    expect(document.sheet.widthMm / document.sheet.heightMm).toBeCloseTo(16 / 9, 6);
    for (const { at, align } of card === "end roll" ? [] : document.blocks) {
      expect(at.yMm).toBeLessThan(document.sheet.heightMm * (1 - SAFE_SHARE));
      if (align === "left") expect(at.xMm).toBeGreaterThan(document.sheet.widthMm * SAFE_SHARE);
    }
  });
  test("thin stands beside heavy; long titles are set smaller", () => {
    const [heavy, thin] = layTitleCard("thin and heavy", lines, faces, "#f3efe6").blocks;
    expect([heavy!.coordinates, thin!.coordinates]).toEqual([{ wght: 800 }, { wght: 200 }]);
    const emOf = (text: string) =>
      (layTitleCard("title", [{ id: "l", text }], faces, "#fff0f0").blocks[0]!.size as { emMm: number }).emMm;
    expect(emOf("Keepers of the Lamp and of All Lights Ashore")).toBeLessThan(emOf("Fog"));
  });
  test("a roll goes by from below to above, no faster than it can be read", () => {
    const text = Array.from({ length: 40 }, (_, i) => `Keeper ${i}, Skerrow Light`).join("\n");
    const { motion, sheet } = layTitleCard("end roll", [{ id: "l_0", text }], faces, "#f3efe6");
    const way = -motion!.poses[1]!.blocks.l_0!.dyMm!;
    const onScreenMs = (sheet.heightMm / way) * motion!.durationMs;
    expect(onScreenMs).toBeGreaterThanOrEqual(5900);
    expect(motion!.durationMs).toBeGreaterThanOrEqual(readingMs(text) - 40);
  });
});

describe("what is told", () => {
  test("time to read grows with the text; nothing takes no time", () => {
    expect(readingMs(" \n ")).toBe(0);
    expect(readingMs("Keepers of the Lamp Part 3: Fog + Brass")).toBe(500 + (39 * 1000) / 15);
  });

  test("contrast: black on white is 21, half as strong less, single worse pixels do not count", () => {
    const white = Array<number>(300).fill(255);
    const moment = (over: object) => ({ timeMs: 0, colour: "#000000", opacity: 1, ground: white, ...over });
    expect(contrastAt(moment({}))).toBeCloseTo(21, 6);
    expect(contrastAt(moment({ opacity: 0.5 }))!).toBeLessThan(6);
    expect(contrastAt(moment({ ground: [0, 0, 0, ...white] }))).toBeCloseTo(21, 6);
    expect(contrastAt(moment({ ground: [] }))).toBeNull();
  });

  test("the lowest moment is one in which the letters can be read", () => {
    const white = Array<number>(30).fill(255);
    const at = (timeMs: number, opacity: number, colour = "#606060") => ({ timeMs, opacity, colour, ground: white });
    expect(lowestContrast([at(0, 0.1), at(100, 0.6), at(200, 1)])!.timeMs).toBe(100);
    expect(lowestContrast([at(0, 0.2)])).toBeNull();
  });
});
