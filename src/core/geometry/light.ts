// Light as it adds up, from values as they are stored.

/** Linear light, 0–1, of an sRGB value, 0–255 (IEC 61966-2-1). */
export const linearLight = (v: number) => (v <= 0.04045 * 255 ? v / 255 / 12.92 : ((v / 255 + 0.055) / 1.055) ** 2.4);
