"use client";
// A lettering that was saved as JSON, opened again as one step: what is no document, or names a face that is not here, says so.
import { useRef } from "react";
import { sentenceOf } from "@/contracts/errors";
import { DOCUMENT_VERSION, LetteringDocument } from "@/contracts/lettering";
import { ask, faultOf } from "../parts/client";

type Props = { onOpen: (document: LetteringDocument, name: string) => void; onRefuse: (sentence: string) => void };
const MOST_BYTES = 8_000_000;

export function OpenDocument({ onOpen, onRefuse }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const open = async (file: File) => {
    const read = await readDocument(file);
    if (typeof read === "string") return onRefuse(read);
    const lacking = await findLacking(read);
    if (lacking) return onRefuse(lacking);
    onOpen(read, file.name);
  };
  return (
    <>
      <button type="button" className="btn" onClick={() => input.current?.click()}>
        Open a document
      </button>
      <input
        ref={input}
        type="file"
        accept=".json,application/json"
        aria-label="A lettering as JSON"
        className="sr-only"
        tabIndex={-1}
        onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = "";
          if (file) void open(file);
        }}
      />
    </>
  );
}

/** @returns the document, or why the file is none. */
async function readDocument(file: File): Promise<LetteringDocument | string> {
  const no = `“${file.name}” is no lettering document. Files that “The document as JSON” saves are.`;
  if (file.size > MOST_BYTES) return no;
  let json: unknown;
  try {
    json = JSON.parse(await file.text());
  } catch {
    return no;
  }
  const version = (json as { version?: unknown } | null)?.version;
  if (typeof version === "number" && version > DOCUMENT_VERSION) return sentenceOf("lettering-newer");
  const read = LetteringDocument.safeParse(json);
  return read.success && read.data.blocks.length ? read.data : no;
}

/** @returns why a line cannot be set; null where all can. */
async function findLacking({ blocks }: LetteringDocument): Promise<string | null> {
  for (const { styleId, text } of blocks)
    try {
      const { owned } = await ask("getStyle", { params: { id: styleId } });
      if (!owned) return `The face of “${text}” is not bought yet: its file is not here. Nothing was opened.`;
    } catch (error) {
      return faultOf(error).code === "not-found"
        ? `The face of “${text}” is not in this library. Import its font, then open the document again.`
        : faultOf(error).message;
    }
  return null;
}
