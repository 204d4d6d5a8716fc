import { expect, test } from "@jest/globals";
import { writeDesignTokens } from "./designTokens";

const face = (name: string) => ({
  name,
  family: "Quay",
  fallback: "serif",
  weight: 640,
  isItalic: true,
  sizePx: 28,
  leading: 1.15,
  note: "for the programme",
  location: { wght: 640 },
  features: {},
});

test("one token a face, its name free of what the format forbids, twice the same told apart", () => {
  const text = writeDesignTokens("Open Night", { ink: "#20262B", paper: "#ffffff" }, [
    face("$heading.{a}"),
    face("text"),
    face("text"),
    face("…"),
  ]);
  const { typography, color } = JSON.parse(text) as {
    typography: Record<string, { $value: unknown; $extensions: unknown }>;
    color: Record<string, { $value: { components: number[] } }>;
  };
  expect(Object.keys(typography)).toEqual(["$type", "heading-a", "text", "text-2", "…"]);
  expect(typography.text!.$value).toEqual({
    fontFamily: ["Quay", "serif"],
    fontSize: { value: 28, unit: "px" },
    fontWeight: 640,
    letterSpacing: { value: 0, unit: "px" },
    lineHeight: 1.15,
  });
  expect(typography.text!.$extensions).toEqual({
    "org.fond-quarry": { fontStyle: "italic", variationSettings: { wght: 640 } },
  });
  expect(color.paper!.$value.components).toEqual([1, 1, 1]);
});
