// What a sample needs to know of a face of a list: its font, what it covers, and its axes set as they were asked for.
import type { OwnWords, ShownItem } from "@/contracts/styles";
import type { CodePointRanges } from "@/contracts/traits";
import { writeValues } from "@/contracts/words";

/** What a sample is told. */
export type SampleProps = {
  styleId: string;
  coverage: CodePointRanges;
  /** Files that add characters to the main one. */
  parts: number;
  text: string;
  /** Words of its script, set where the text has no letter of it. */
  own?: OwnWords | null;
  sizePx: number;
  /** Mean advance of the face in em: the width of a missing character's box. */
  widthEm: number | null;
  ink?: string;
  wrap?: boolean;
  align?: "left" | "center";
  /** Axis values. A variable face is always given all of its own: else the browser picks weight and optical size itself. */
  axes?: Record<string, number>;
  features?: string;
  /** The factor that all samples beside it share; a line that is longer is cut at the edge, softly. Absent: each is fitted by itself. */
  fit?: number;
  /** False: the font is not here, the library sets the line. */
  owned?: boolean;
  /** The line is set so large that it fills this much of its room, whatever its point size: faces levelled by line width. */
  byLineWidth?: boolean;
  /** Scrolled past: a font that is not here is not asked for yet. */
  isPassing?: boolean;
};

export const sampleOf = ({ styleId, coverage, own, parts, axisDefaults, axisWanted, traits, owned }: ShownItem) => ({
  styleId,
  coverage,
  own,
  parts,
  axes: { ...axisDefaults, ...axisWanted },
  widthEm: traits.widthEm,
  owned,
});

type SeenAt = { location?: Record<string, number>; features?: Record<string, number> };

/** A sample of a kept face: as it was seen, whatever the list is asked for now. */
export const sampleAt = (item: ShownItem, { location = {}, features = {} }: SeenAt) => ({
  ...sampleOf(item),
  axes: { ...item.axisDefaults, ...location },
  ...(Object.keys(features).length > 0 && { features: writeFeatures(features) }),
});

/** As CSS has it (font-feature-settings). */
const writeFeatures = (features: Record<string, number>) =>
  Object.entries(features)
    .map(([tag, value]) => `"${tag}" ${value}`)
    .join(", ");

/** How a face was kept, in words: its place on the axes and its features; empty when it is as it comes. */
export const writeSetting = ({ location = {}, features = {} }: SeenAt) =>
  [location, features]
    .map((values) => writeValues(values, 1))
    .filter(Boolean)
    .join(" · ");

/** The page of a face as it was kept. */
export function addressOfKept(
  briefId: string,
  { styleId, location = {}, features = {} }: SeenAt & { styleId: string },
) {
  const at = new URLSearchParams();
  if (Object.keys(location).length) at.set("at", writeSeen(location));
  if (Object.keys(features).length) at.set("features", writeSeen(features));
  return `/b/${briefId}/style/${styleId}${at.size ? `?${at}` : ""}`;
}

/** Tags and values in an address: "wght:250,wdth:80". */
export const writeSeen = (values: Record<string, number>) =>
  Object.entries(values)
    .map(([tag, value]) => `${tag}:${value}`)
    .join(",");

/** What is none is left out. */
export const readSeen = (text: string | null): Record<string, number> =>
  Object.fromEntries(
    (text ?? "").split(",").flatMap((part) => {
      const [tag = "", value = ""] = part.split(":");
      return /^[ -~]{4}$/.test(tag) && value !== "" && Number.isFinite(Number(value)) ? [[tag, Number(value)]] : [];
    }),
  );
