// The typography of a brief as design tokens. Source: Design Tokens Format Module 2025.10 (W3C community group).
type TokenFace = {
  /** Role, or name where it has none: what the token is called. */
  name: string;
  family: string;
  fallback: string;
  weight: number;
  isItalic: boolean;
  sizePx: number;
  leading: number;
  note: string;
  location: Readonly<Record<string, number>>;
  features: Readonly<Record<string, number>>;
};

const EXTENSION = "org.fond-quarry";

/** Names of tokens hold no braces and full stops, and do not begin with a dollar sign. */
const tokenName = (text: string): string =>
  text
    .trim()
    .toLowerCase()
    .replace(/[{}.$\s]+/g, "-")
    .replace(/^-+|-+$/g, "") || "face";

function colour(hex: string) {
  const part = (at: number) => Number((parseInt(hex.slice(at, at + 2), 16) / 255).toFixed(4));
  return {
    $type: "color",
    $value: { colorSpace: "srgb", components: [part(1), part(3), part(5)], hex: hex.toLowerCase() },
  };
}

/** @param colours - `#rrggbb`. @returns JSON text. */
export function writeDesignTokens(
  title: string,
  colours: { ink: string; paper: string },
  faces: readonly TokenFace[],
): string {
  const taken = new Map<string, number>();
  const typography = faces.map((face) => {
    const base = tokenName(face.name);
    const count = (taken.get(base) ?? 0) + 1;
    taken.set(base, count);
    const extra = {
      ...(face.isItalic && { fontStyle: "italic" }),
      ...(Object.keys(face.location).length && { variationSettings: face.location }),
      ...(Object.keys(face.features).length && { featureSettings: face.features }),
    };
    const token = {
      $value: {
        fontFamily: [face.family, face.fallback],
        fontSize: { value: Number(face.sizePx.toFixed(2)), unit: "px" },
        fontWeight: face.weight,
        letterSpacing: { value: 0, unit: "px" },
        lineHeight: face.leading,
      },
      ...(face.note && { $description: face.note }),
      ...(Object.keys(extra).length && { $extensions: { [EXTENSION]: extra } }),
    };
    return [count > 1 ? `${base}-${count}` : base, token] as const;
  });
  return `${JSON.stringify(
    {
      $description: title,
      color: { ink: colour(colours.ink), paper: colour(colours.paper) },
      typography: { $type: "typography", ...Object.fromEntries(typography) },
    },
    null,
    2,
  )}\n`;
}
