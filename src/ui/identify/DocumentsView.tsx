"use client";
// Fonts of documents: what each names, whether it is embedded and where it is used, and which face of the libraries it is or comes near.
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useEffect, useRef, useState } from "react";
import type { DocumentFont, DocumentFonts, DocumentPicture } from "@/contracts/documents";
import type { StyleId } from "@/contracts/ids";
import { DOCUMENT_ENDINGS } from "@/contracts/words";
import { useBench } from "../bench/BenchContext";
import { writeFault } from "../messages";
import { FaultNote } from "../parts/FaultNote";
import { ask, askFile, faultOf } from "../parts/client";
import { addOpenCase } from "./openCases";
import { Chooser, DropArea } from "./DropArea";
import { MatchRow, useDetails } from "./MatchRow";

const ACCEPT = DOCUMENT_ENDINGS.map((e) => `.${e}`).join(",");
type Read = { id: number; name: string } & (
  | { state: "reading" }
  | { state: "read"; result: DocumentFonts }
  | { state: "refused"; fault: { what: string; now: string } }
);

/** What was read stays while the window is open: the files themselves are not kept. */
const KEPT_AT = "documents";
const KEPT_MOST = 8;
const readKept = (): Read[] => {
  try {
    return JSON.parse(sessionStorage.getItem(KEPT_AT) ?? "[]") as Read[];
  } catch {
    return [];
  }
};

export function DocumentsView() {
  const { brief, dispatch } = useBench();
  const { list, files, readAll, forget } = useDocuments();
  useEffect(() => {
    const fonts = list.flatMap((r) => (r.state === "read" ? r.result.fonts : []));
    const here = fonts.filter((f) => f.matchedBy === "outlines" || f.matchedBy === "name").length;
    const facts = [`${fonts.length} ${fonts.length === 1 ? "font" : "fonts"}`, `${here} in your libraries`];
    dispatch({ type: "facts", facts: fonts.length ? facts : [] });
  }, [list, dispatch]);
  const onFiles = (files: File[]) => void readAll(files);
  const choose = (act: boolean, label: string) => (
    <Chooser onFiles={onFiles} label={label} what="Documents" accept={ACCEPT} act={act} multiple />
  );
  if (!list.length)
    return (
      <DropArea onFiles={onFiles}>
        <h1 className="text-[20px] font-bold">Which fonts are in this document?</h1>
        <p className="mt-1 max-w-[620px] text-basalt">
          Drop a PDF, a saved web page (HTML, CSS, or a zip of it), SVG, DOCX, ODT, PPTX or EPUB here. Its fonts are
          listed and looked for in your libraries: by their letters where the document holds them, else by name.
        </p>
        <div className="mt-4">{choose(true, "Choose documents")}</div>
        <Others briefId={brief.briefId} />
      </DropArea>
    );
  return (
    <DropArea onFiles={onFiles} className="h-full overflow-y-auto px-6 py-3">
      <div className="flex items-baseline gap-4">
        <h1 className="text-[17px] font-bold">Fonts in documents</h1>
        <span className="ml-auto">{choose(false, "Another document")}</span>
      </div>
      {list.map((r) => (
        <FontsOf key={r.id} read={r} file={files.get(r.id) ?? null} onForget={() => forget(r.id)} />
      ))}
    </DropArea>
  );
}

/** Documents that are being read, were read or refused. Those that were read stay while the window is open. */
function useDocuments() {
  const [list, setList] = useState<Read[]>([]);
  const next = useRef(1);
  const asked = useRef(new Map<number, AbortController>());
  /** Documents that are still at hand: none after a reload. */
  const [files, setFiles] = useState<ReadonlyMap<number, File>>(new Map());
  useEffect(() => {
    // After the first drawing, which the server has made without them.
    const kept = readKept();
    next.current = Math.max(0, ...kept.map((r) => r.id)) + 1;
    // oxlint-disable-next-line react/set-state-in-effect
    setList(kept);
    const running = asked.current;
    return () => running.forEach((stop) => stop.abort());
  }, []);
  useEffect(() => {
    const done = list.filter((r) => r.state === "read").slice(0, KEPT_MOST);
    if (list.length) sessionStorage.setItem(KEPT_AT, JSON.stringify(done));
  }, [list]);
  const put = (id: number, to: Read | null) =>
    setList((now) => now.flatMap((r) => (r.id !== id ? [r] : to ? [to] : [])));
  const read = async (file: File) => {
    const [id, name] = [next.current++, file.name];
    setFiles((now) => new Map(now).set(id, file));
    const stop = new AbortController();
    asked.current.set(id, stop);
    setList((now) => [{ id, name, state: "reading" }, ...now]);
    const form = new FormData();
    form.append("document", file);
    try {
      const result = await ask("listDocumentFonts", { form }, { signal: stop.signal });
      put(id, { id, name, state: "read", result });
    } catch (error) {
      if ((error as Error).name === "AbortError") return put(id, null);
      put(id, { id, name, state: "refused", fault: writeFault(faultOf(error)) });
    }
  };
  const readAll = async (files: File[]) => {
    // One after another: each may take the worker's whole memory.
    for (const file of files) await read(file);
  };
  const forget = (id: number) => {
    asked.current.get(id)?.abort();
    put(id, null);
    if (list.length === 1) sessionStorage.removeItem(KEPT_AT);
  };
  return { list, files, readAll, forget };
}

function FontsOf({ read, file, onForget }: { read: Read; file: File | null; onForget: () => void }) {
  return (
    <section aria-label={read.name} className="mt-4" data-document={read.name}>
      <div className="flex items-baseline gap-3 border-b border-rule pb-1">
        <h2 className="min-w-0 truncate font-bold">{read.name}</h2>
        {read.state === "read" && <span className="shrink-0 text-basalt">{summarise(read.result)}</span>}
        {read.state === "reading" && <span role="status">Reading …</span>}
        <button type="button" className="ml-auto shrink-0 underline" onClick={onForget}>
          {read.state === "reading" ? "Cancel" : "Remove"}
        </button>
      </div>
      {read.state === "refused" && <FaultNote fault={read.fault} />}
      {read.state === "read" &&
        read.result.fonts.map((font, i) => <FontOfDocument key={`${font.name} ${i}`} font={font} />)}
      {read.state === "read" && file && <PicturesOf file={file} pictures={read.result.pictures ?? []} />}
    </section>
  );
}

/** Pictures of a document, each of which is opened in Identify. */
function PicturesOf({ file, pictures }: { file: File; pictures: DocumentPicture[] }) {
  const { brief, sayFault } = useBench();
  const router = useRouter();
  const [opening, setOpening] = useState<number | null>(null);
  const [isWhole, setWhole] = useState(false);
  const open = async (at: number) => {
    setOpening(at);
    const form = new FormData();
    form.append("document", file);
    form.append("at", String(at));
    try {
      const picture = await askFile("readDocumentPicture", { form });
      const ending = picture.type === "image/jpeg" ? "jpg" : "png";
      const name = `${file.name}, ${titleOf(pictures[at]!)}.${ending}`;
      await addOpenCase(brief.briefId, new File([picture], name, { type: picture.type }));
      router.push(`/b/${brief.briefId}/identify`);
    } catch (error) {
      sayFault(error);
      setOpening(null);
    }
  };
  if (!pictures.length) return null;
  return (
    <ul aria-label="Pictures in it" className="border-b border-rule py-2">
      {pictures.slice(0, isWhole ? undefined : FIRST_PICTURES).map((p, at) => (
        <li key={at} className="flex items-baseline gap-3 py-1">
          <span className="min-w-0 truncate">
            A picture on <b>{titleOf(p)}</b>
          </span>
          {p.widthPx && (
            <span className="num shrink-0 text-[12px] text-basalt">
              {p.widthPx} × {p.heightPx} px
            </span>
          )}
          <button
            type="button"
            className="shrink-0 font-semibold text-tide underline"
            disabled={opening !== null}
            onClick={() => void open(at)}
          >
            {opening === at ? "Opening …" : "Identify its lettering"}
          </button>
        </li>
      ))}
      {!isWhole && pictures.length > FIRST_PICTURES && (
        <li className="py-1">
          <button type="button" className="underline" onClick={() => setWhole(true)}>
            {pictures.length - FIRST_PICTURES} more pictures
          </button>
        </li>
      )}
    </ul>
  );
}
const FIRST_PICTURES = 6;

const titleOf = ({ page, part }: DocumentPicture) => (page ? `page ${page}` : (part ?? "a page").split("/").pop()!);

/** The other ways to find out. */
function Others({ briefId }: { briefId: string }) {
  return (
    <p className="mt-6 text-basalt">
      Or{" "}
      <Link href={`/b/${briefId}/identify`} className="font-semibold text-tide underline">
        from a picture
      </Link>
      ,{" "}
      <Link href={`/b/${briefId}/identify/questions`} className="font-semibold text-tide underline">
        by questions on its letters
      </Link>
      .
    </p>
  );
}

function summarise({ fonts }: DocumentFonts): string {
  if (!fonts.length) return "no fonts in it";
  const missing = fonts.filter((f) => !f.styleId || f.matchedBy === "family").length;
  return [
    `${fonts.length} ${fonts.length === 1 ? "font" : "fonts"}`,
    missing ? `${missing} not in your libraries` : "all in your libraries",
  ].join(", ");
}

const BY: Record<NonNullable<DocumentFont["matchedBy"]>, string> = {
  outlines: "The same letters are in your libraries.",
  name: "A face of this name is in your libraries; the document does not hold its letters to compare.",
  family: "Its family is in your libraries, this style of it is not.",
};

function FontOfDocument({ font }: { font: DocumentFont }) {
  const { brief } = useBench();
  const alike = font.alike ?? [];
  const own = font.styleId ? [{ styleId: font.styleId, family: "", style: "" }] : [];
  const shown: { styleId: StyleId; family: string; style: string; steps?: number }[] = [...own, ...alike];
  const details = useDetails(shown.map((s) => s.styleId));
  const words = brief.lines[0]?.text ?? "";
  const isNameless = font.name === "[none]";
  return (
    <article
      className="grid grid-cols-[minmax(0,0.8fr)_minmax(0,1.2fr)] gap-6 border-b border-rule py-3"
      data-document-font={font.name}
    >
      <div className="min-w-0">
        <h3 className="truncate text-[15px] font-bold" title={font.name}>
          {isNameless ? "A font without a name" : [font.family ?? font.name, font.style].filter(Boolean).join(" ")}
        </h3>
        {!isNameless && <p className="num truncate text-[12px] text-basalt">{font.name}</p>}
        <p>{font.embedded ? (font.subset ? "Embedded, only the letters used" : "Embedded") : "Not embedded"}</p>
        <p className="text-basalt">{font.usedFor ? `Used: ${font.usedFor}` : "Named, not used"}</p>
      </div>
      <div className="min-w-0">
        <p className={font.matchedBy && font.matchedBy !== "family" ? "" : "font-semibold"}>
          {font.matchedBy
            ? font.matchedBy === "name" && font.embedded
              ? "A face of this name is in your libraries; its letters differ a little, or cannot be compared."
              : BY[font.matchedBy]
            : "Not in your libraries."}
          {alike.length > 0 && ` Nearest by its ${font.alikeBy === "widths" ? "widths" : "letters"}:`}
        </p>
        <ol>
          {shown.map((s, i) => {
            const detail = details[i];
            return (
              <MatchRow
                key={s.styleId}
                match={{ ...s, family: s.family || (detail?.family ?? ""), style: s.style || (detail?.style ?? "") }}
                detail={detail}
                text={words}
              >
                {s.steps !== undefined && (
                  <p className="text-[12px] text-basalt">
                    {(font.alikeBy === "widths" ? writeWidths : writeSteps)(s.steps)}
                  </p>
                )}
              </MatchRow>
            );
          })}
        </ol>
      </div>
    </article>
  );
}

const writeSteps = (steps: number) =>
  steps < 0.5 ? "nearly identical" : steps < 1.2 ? "near" : steps < 2.5 ? "partly similar" : "far";
/** Equal widths do not make equal letters. */
const writeWidths = (steps: number) =>
  steps < 0.2 ? "the same widths" : steps < 0.8 ? "nearly the same widths" : "other widths";
