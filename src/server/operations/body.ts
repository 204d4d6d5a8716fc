// Bodies of requests, counted while they are read: what a header announces is not believed, and no body is held beyond its limit.
import Busboy from "@fastify/busboy";
import { createWriteStream } from "node:fs";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { refuse, succeed, type FaultCode, type Outcome } from "@/contracts/errors";

const MAX_JSON_BYTES = 1024 * 1024;
/** What a form may hold beside its files: a kept identification carries its picture's line. */
const MAX_FIELD_BYTES = 8 * 1024 * 1024;
const MAX_FIELDS = 60;
const MAX_FILES = 5000;

export type SentFile = { name: string; type: string; bytes: Uint8Array };
type SentForm = { fields: ReadonlyMap<string, string>; file: SentFile };

/** @returns undefined for what is no JSON, so that its schema refuses it. */
export async function readJson(request: Request, maxBytes = MAX_JSON_BYTES): Promise<Outcome<unknown>> {
  const parts: Uint8Array[] = [];
  let size = 0;
  for await (const part of (request.body ?? []) as unknown as AsyncIterable<Uint8Array>) {
    size += part.length;
    if (size > maxBytes) return refuse("too-large");
    parts.push(part);
  }
  try {
    return succeed(JSON.parse(Buffer.concat(parts).toString("utf8")));
  } catch {
    return succeed(undefined);
  }
}

/** The form of a request that sends one file in a field. Other files of it are passed over. */
export async function readFileForm(
  request: Request,
  field: string,
  maxBytes: number,
  tooLarge: FaultCode,
): Promise<Outcome<SentForm>> {
  let file: SentFile | null = null;
  const form = await parseForm(request, maxBytes, async (name, stream, about) => {
    const parts: Buffer[] = [];
    for await (const part of stream) if (name === field && !file) parts.push(part as Buffer);
    if (name === field) file ??= { ...about, bytes: new Uint8Array(Buffer.concat(parts)) };
  });
  if (!form.ok) return form.code === "too-large" ? refuse(tooLarge) : form;
  return file ? succeed({ fields: form.value, file }) : refuse("no-file");
}

/**
 * Writes the files of one field to disk as they arrive.
 * @param placeOf - where the n-th file goes.
 * @returns their names in order, and the form's other fields.
 */
export async function receiveFiles(
  request: Request,
  field: string,
  maxBytes: number,
  placeOf: (n: number) => string,
): Promise<Outcome<{ fields: ReadonlyMap<string, string>; names: string[] }>> {
  const names: string[] = [];
  const form = await parseForm(request, maxBytes, async (name, stream, about) => {
    if (name !== field) return void stream.resume();
    await pipeline(stream, createWriteStream(placeOf(names.push(about.name) - 1)));
  });
  if (!form.ok) return form;
  return names.length ? succeed({ fields: form.value, names }) : refuse("no-file");
}

type TakeFile = (field: string, stream: Readable, about: { name: string; type: string }) => Promise<void>;

/** @throws what writing a file threw: a full disk is told as one. */
async function parseForm(
  request: Request,
  maxBytes: number,
  take: TakeFile,
): Promise<Outcome<ReadonlyMap<string, string>>> {
  const type = request.headers.get("content-type") ?? "";
  if (!request.body || !/^multipart\/form-data\b/i.test(type)) return refuse("no-file");
  const fields = new Map<string, string>();
  const parser = new Busboy({
    headers: { "content-type": type },
    limits: { fieldSize: MAX_FIELD_BYTES, fields: MAX_FIELDS, files: MAX_FILES },
    preservePath: true,
  });
  const taken: Promise<void>[] = [];
  let cut: "too-large" | null = null;
  parser.on("file", (field, stream, name, _encoding, mime) => {
    const one = take(field, stream, { name: name || "unnamed", type: mime });
    one.catch((error: Error) => parser.destroy(error));
    taken.push(one);
  });
  parser.on("field", (name, value, _nameCut, valueCut) => {
    if (valueCut) cut = "too-large";
    fields.set(name, value);
  });
  let size = 0;
  const counted = async function* (source: AsyncIterable<Uint8Array>) {
    for await (const part of source) {
      size += part.length;
      if (size > maxBytes + MAX_FIELD_BYTES) cut = "too-large";
      // What follows is let by, within bounds: who is cut off while sending never hears why.
      if (size > 2 * (maxBytes + MAX_FIELD_BYTES)) return;
      if (!cut) yield part;
    }
  };
  try {
    await pipeline(Readable.fromWeb(request.body as never), counted, parser);
    await Promise.all(taken);
  } catch (error) {
    await Promise.allSettled(taken);
    if (cut) return refuse(cut);
    // The parser's own complaints: a form that is cut off or not one. Anything with a code comes from the disk.
    if ((error as NodeJS.ErrnoException).code?.startsWith("E")) throw error;
    return refuse("bad-request");
  }
  return cut ? refuse(cut) : succeed(fields);
}
