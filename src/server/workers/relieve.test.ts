// Faces are opened until HarfBuzz's memory would have run out several times.
import { expect, test } from "@jest/globals";
import { openFont } from "@/core/open/openFont";
import { openFace } from "@/core/outlines/openFace";
import { demoVariableBytes } from "../../../tests/fixtures/demoFont";
import { relieve } from "./relieve";

/** More than the two gigabytes that its memory can have. */
const OPENED_BYTES = 5e9;

test("faces that nobody uses any more are freed while others are opened", async () => {
  const { sfnt } = await openFont(demoVariableBytes("commissioner"));
  let last = openFace(sfnt);
  for (let bytes = 0; bytes < OPENED_BYTES; bytes += sfnt.length) {
    last = openFace(sfnt);
    await relieve();
  }
  expect(last.glyphOf(0x41)).not.toBeNull();
  expect(last.outline(last.glyphOf(0x41)!).verbs.length).toBeGreaterThan(3);
});
