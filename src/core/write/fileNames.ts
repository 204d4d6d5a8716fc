// Names of files that every system takes: Windows' devices and endings, macOS' folding of case and accents.

const DEVICES = /^(?:con|prn|aux|nul|com\d|lpt\d)$/i;
/** Room for a number and an extension. */
const MAX_NAME = 72;

/** A name of words as part of a path: no separators, no dots or spaces at its ends, no device. Never empty. */
function safeName(name: string): string {
  const plain = name
    .toWellFormed()
    .normalize("NFC")
    .replace(/[^\p{L}\p{M}\p{N}&+ ._-]/gu, "")
    .replace(/\s+/g, " ");
  const cut = [...plain.slice(0, MAX_NAME * 2)]
    .slice(0, MAX_NAME)
    .join("")
    .replace(/^[. ]+|[. ]+$/g, "");
  return DEVICES.test(cut.split(".")[0]!.trim()) ? `_${cut}` : cut || "font";
}

/** Names of one folder, each once whatever the system folds. The number comes behind what was cut. */
export class NamesOnce {
  private readonly used = new Set<string>();
  take(name: string): string {
    const base = safeName(name);
    let own = base;
    for (let n = 2; this.used.has(fold(own)); n++) own = `${base} ${n}`;
    this.used.add(fold(own));
    return own;
  }
}
const fold = (name: string) => name.normalize("NFKD").replace(/\p{M}/gu, "").toLowerCase();
