// File names in archives: bytes in whatever encoding the packing system used, often without saying which. Decoded by what reads best.
// Sources: APPNOTE 6.3.10 (bit 11, extra field 0x7075); code page 437 as the format's default.

const CP437 =
  "ÇüéâäàåçêëèïîìÄÅÉæÆôöòûùÿÖÜ¢£¥₧ƒáíóúñÑªº¿⌐¬½¼¡«»░▒▓│┤╡╢╖╕╣║╗╝╜╛┐└┴┬├─┼╞╟╚╔╩╦╠═╬╧╨╤╥╙╘╒╓╫╪┘┌█▄▌▐▀αßΓπΣσµτΦΘΩδ∞φε∩≡±≥≤⌠⌡÷≈°∙·√ⁿ²■\u00a0";
const decodeCp437 = (raw: Uint8Array) =>
  [...raw].map((b) => (b < 128 ? String.fromCharCode(b) : CP437[b - 128]!)).join("");

const decode = (encoding: string) => (raw: Uint8Array) => {
  try {
    return new TextDecoder(encoding, { fatal: true }).decode(raw);
  } catch {
    return null;
  }
};
/** Ways of reading a name that does not say its encoding; of equals the first wins. */
const READINGS: ((raw: Uint8Array) => string | null)[] = [
  decodeCp437,
  decode("windows-1252"),
  decode("macintosh"),
  decode("shift_jis"),
  decode("gbk"),
  decode("ibm866"),
  decode("euc-kr"),
];

/** A name's bytes as text. @param isUtf8 - the entry says so. */
export function decodeFileName(raw: Uint8Array, isUtf8: boolean): string {
  const utf8 = decode("utf-8")(raw);
  if (utf8 !== null) return utf8.normalize("NFC");
  if (isUtf8) return new TextDecoder().decode(raw);
  const readings = READINGS.map((read) => read(raw)).filter((t): t is string => t !== null);
  return readings.reduce((best, next) => (oddness(next) < oddness(best) ? next : best)).normalize("NFC");
}

/** How unlike a file name a reading looks: signs and drawings among letters, capitals inside words, scripts mixed in a word. */
function oddness(name: string): number {
  let odd = 0;
  for (const word of name.split(/[\s/._()-]+/)) {
    for (const c of word) {
      if (c < "\u0080") continue;
      if (/[\u2500-\u25ff\u0000-\u001f\u007f-\u009f\ufffd\ue000-\uf8ff]/.test(c)) odd += 4;
      else if (!/\p{L}|\p{M}/u.test(c)) odd += 2.5;
      else if (/[\uff61-\uff9f]/.test(c)) odd += 1.5;
      else if (!/[äöüÄÖÜßéèêëàâáíóúñçôîïûåæøÉ]/.test(c)) odd += 0.4;
    }
    if (/\p{Ll}\p{Lu}+\p{Ll}/u.test(word) && /[^\u0000-\u007f]/.test(word))
      odd += /[A-Z]/.test(word.slice(1)) ? 0.2 : 1.5;
    const scripts = ["Latin", "Greek", "Cyrillic", "Han", "Katakana", "Hangul"].filter((s) =>
      new RegExp(`\\p{Script=${s}}`, "u").test(word),
    );
    if (scripts.length > 1) odd += 3;
  }
  return odd;
}
