// What a sample needs to know of a face of a list: its font, what it covers, and its axes set as they were asked for.
import type { ShownItem } from "@/contracts/styles";

export const sampleOf = ({ styleId, coverage, axisDefaults, axisWanted, traits, owned }: ShownItem) => ({
  styleId,
  coverage,
  axes: { ...axisDefaults, ...axisWanted },
  widthEm: traits.widthEm,
  owned,
});
