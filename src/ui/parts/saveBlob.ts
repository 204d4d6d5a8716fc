// A file that the page made itself, saved under a name.

/** As long as a browser may take to begin. */
const KEPT_MS = 60_000;

export function saveBlob(blob: Blob, name: string) {
  const address = URL.createObjectURL(blob);
  const link = document.createElement("a");
  link.href = address;
  link.download = name;
  link.click();
  // The browser may read it a moment later.
  setTimeout(() => URL.revokeObjectURL(address), KEPT_MS);
}
