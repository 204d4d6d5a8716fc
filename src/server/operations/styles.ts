// What answers questions about styles.
import { succeed, refuse } from "@/contracts/errors";
import type { STYLE_OPERATIONS } from "@/contracts/operations/styles";
import { readStored } from "../db/fileStore";
import { listParts } from "../queries/parts";
import { findStyleFile } from "../queries/styles";
import { listAlike } from "../usecases/alike";
import { findOnMap, getFaceMap, listMapFaces } from "../usecases/faceMap";
import { listFound, listSuggestions } from "../usecases/findings";
import { setLineIn } from "../usecases/libraries";
import { addUserEvidence, setUserEvidence } from "../usecases/provenance";
import { forgetSearch, listSearches, saveSearch, tagStyle } from "../usecases/searches";
import { describeParts, getAnatomy, getBeside, getStyleDetail, listGlyphs } from "../usecases/styleDetail";
import { correctTheme, forgetTheme, listThemes } from "../usecases/themes";
import { FileAnswer } from "./answers";
import { found, type Handlers } from "./bind";

const FONT_TYPES: Record<string, string> = { woff2: "font/woff2", woff: "font/woff", ttf: "font/ttf", otf: "font/otf" };

export const styleHandlers: Handlers<keyof typeof STYLE_OPERATIONS> = {
  findStyles: ({ db, query, answerHeaders }) => {
    const started = performance.now();
    const list = listFound(db, query);
    // So that the browser's tools and the benchmark see what finding itself took.
    answerHeaders.set("server-timing", `find;dur=${(performance.now() - started).toFixed(1)}`);
    return succeed(list);
  },
  getStyle: ({ db, params, query }) => found(getStyleDetail(db, params.id, query.briefId ?? null)),
  // For the browser to set samples with. A style may get another file: the browser keeps it and asks whether it still holds.
  getStyleFile: ({ db, params, query, request }) => {
    const style = findStyleFile(db, params.id);
    if (!style) return refuse("not-found");
    if (!style.owned) return refuse("not-owned");
    const file = query.part ? listParts(db, params.id).find((p) => p.sha256 === query.part) : style;
    if (!file) return refuse("not-found");
    const isBare = query.packing === "none";
    const sha256 = isBare ? file.sfntSha256 : file.sha256;
    const headers = { etag: `"${sha256}"`, "cache-control": "private, no-cache" };
    if (request.headers.get("if-none-match") === headers.etag)
      return succeed(new FileAnswer(null, null, { headers, status: 304 }));
    const type = isBare ? "font/sfnt" : (FONT_TYPES[file.format] ?? "application/octet-stream");
    return succeed(new FileAnswer(readStored(sha256), type, { headers }));
  },
  listParts: ({ db, params }) => found(findStyleFile(db, params.id) && { parts: describeParts(db, params.id) }),
  listGlyphs: ({ db, params, query, signal }) => listGlyphs(db, params.id, query, signal),
  getFaceMap: ({ db }) => getFaceMap(db),
  findOnMap: ({ db, query }) => findOnMap(db, query),
  listMapFaces: ({ db, query }) => found(listMapFaces(db, query.briefId, query.ids)),
  listAlike: ({ db, params, query }) => found(listAlike(db, params.id, query)),
  getAnatomy: ({ db, params, signal }) => getAnatomy(db, params.id, signal),
  getBeside: ({ db, params, query, signal }) => getBeside(db, params.id, query, signal),
  tagStyle: ({ db, params, body }) => found(tagStyle(db, params.id, body.tag, body.holds)),
  setLine: async ({ db, params, query, answerHeaders }) => {
    const line = await setLineIn(db, params.id, query.text);
    if (line.ok) answerHeaders.set("cache-control", "private, max-age=86400");
    return line;
  },
  addEvidence: ({ db, params, body }) => addUserEvidence(db, params.id, body),
  changeEvidence: ({ db, params, body }) => setEvidence(db, params, body.removed),
  removeEvidence: ({ db, params }) => setEvidence(db, params, true),
  suggest: ({ db, query }) => succeed(listSuggestions(db, query.q)),
  listSearches: ({ db }) => succeed({ searches: listSearches(db) }),
  saveSearch: ({ db, body }) => succeed(saveSearch(db, body)),
  listThemes: ({ db }) => succeed({ themes: listThemes(db) }),
  correctTheme: ({ db, params, body }) => found(correctTheme(db, params.phrase, body)),
  forgetTheme: ({ db, params }) => found(forgetTheme(db, params.phrase) ? { phrase: params.phrase } : null),
  removeSearch: ({ db, params }) => found(forgetSearch(db, params.id) ? { searchId: params.id } : null),
};

async function setEvidence(
  db: Parameters<typeof setUserEvidence>[0],
  { id, evidenceId }: { id: string; evidenceId: string },
  removed: boolean,
) {
  return found((await setUserEvidence(db, id, evidenceId, removed)) ? { evidenceId, removed } : null);
}
