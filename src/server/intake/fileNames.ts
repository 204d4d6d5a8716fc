// File names in archives: bytes in whatever encoding the packing system used, often without saying which. Decoded by what reads best.
// Sources: APPNOTE 6.3.10 (bit 11, extra field 0x7075); code page 437 as the format's default.

import iconv from "iconv-lite";

/** Encodings of a name that does not say its own; of equals the first wins. A detector wants more than the dozen bytes of a name. */
const ENCODINGS = ["cp437", "windows-1252", "macintosh", "shift_jis", "gbk", "cp866", "euc-kr"];

/** A name's bytes as text. @param isUtf8 - the entry says so. */
export function decodeFileName(raw: Uint8Array, isUtf8: boolean): string {
  const utf8 = new TextDecoder().decode(raw);
  if (isUtf8 || !utf8.includes("\ufffd")) return utf8.normalize("NFC");
  const readings = ENCODINGS.map((encoding) => iconv.decode(Buffer.from(raw), encoding));
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
