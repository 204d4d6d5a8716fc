// Fonts of an EPUB or of a saved page in a zip: every page, drawing and style sheet in it, and the font files that they point to.
// In books font files may be masked with a key of the book's name (EPUB 3.3, "Font obfuscation").
import { DocumentError, type FoundFont, type Parts } from "./found";
import { readMarkup } from "./markup";
import { gatherFonts, readStyles, type Styles } from "./styleSheets";

const MASKED_BYTES = 1040;

/** @throws DocumentError: an archive whose fonts are locked, or without a single page. */
export async function readBook(parts: Parts): Promise<FoundFont[]> {
  const all: (Styles & { folder: string })[] = [];
  for (const path of parts.paths) {
    const kind = /\.(x?html?|svg|css)$/i.exec(path)?.[1]!.toLowerCase();
    const bytes = kind ? await parts.read(path) : null;
    if (!kind || !bytes) continue;
    const text = new TextDecoder().decode(bytes);
    all.push({
      ...(kind === "css" ? readStyles(text) : readMarkup(text, kind !== "html" && kind !== "htm")),
      folder: path.slice(0, path.lastIndexOf("/") + 1),
    });
  }
  if (!all.length) throw new DocumentError("document-broken", "no page and no style sheet in it");
  const unmask = await readMask(parts);
  const fetch = async (path: string) => {
    const bytes = await parts.read(path);
    return bytes && unmask(path, bytes);
  };
  return gatherFonts(
    {
      asks: all.flatMap((s) => s.asks),
      // Addresses are told from the root, since each stands in a file of its own folder.
      brought: all.flatMap(({ brought, folder }) =>
        brought.map((b) => ({ ...b, source: b.source && resolve(folder, b.source) })),
      ),
    },
    fetch,
  );
}

function resolve(folder: string, source: string): string {
  if (/^data:/i.test(source)) return source;
  try {
    const url = new URL(source, `book:///${folder.split("/").map(encodeURIComponent).join("/")}`);
    return url.protocol === "book:" ? decodeURIComponent(url.pathname.replace(/^\/+/, "")) : source;
  } catch {
    return source;
  }
}

/** Which files are masked, and the key: SHA-1 of the book's identifier without white space. */
async function readMask(parts: Parts): Promise<(path: string, bytes: Uint8Array) => Uint8Array> {
  const read = async (path: string) => {
    const bytes = parts.paths.includes(path) ? await parts.read(path) : null;
    return bytes ? new TextDecoder().decode(bytes) : "";
  };
  const encryption = await read("META-INF/encryption.xml");
  const masked = new Set<string>();
  for (const block of encryption.split(/<(?:\w+:)?EncryptedData\b/).slice(1))
    if (block.includes("http://www.idpf.org/2008/embedding")) {
      const uri = /CipherReference[^>]*URI\s*=\s*["']([^"']+)["']/.exec(block)?.[1];
      if (uri) masked.add(decodeURI(uri));
    }
  if (!masked.size) return (_, bytes) => bytes;
  const opf = /full-path\s*=\s*["']([^"']+)["']/.exec(await read("META-INF/container.xml"))?.[1] ?? "";
  const book = await read(opf);
  const idOf = /unique-identifier\s*=\s*["']([^"']+)["']/.exec(book)?.[1] ?? "";
  const identifier =
    [...book.matchAll(/<dc:identifier\b([^>]*)>([^<]*)</g)].find(
      (m) => m[1]!.includes(`"${idOf}"`) || m[1]!.includes(`'${idOf}'`),
    )?.[2] ?? "";
  const spaceless = identifier.replace(/[ \t\r\n]/g, "");
  const key = new Uint8Array(await crypto.subtle.digest("SHA-1", new TextEncoder().encode(spaceless)));
  return (path, bytes) =>
    masked.has(path) ? bytes.map((b, i) => (i < MASKED_BYTES ? b ^ key[i % key.length]! : b)) : bytes;
}
