// Edits of one block that keep what was done to its letters.
import type { Block, Letter, LetteringDocument } from "@/contracts/lettering";

/** The document with one block of it changed. */
export const replaceBlock = (document: LetteringDocument, block: Block): LetteringDocument => ({
  ...document,
  blocks: document.blocks.map((b) => (b.id === block.id ? block : b)),
});

/** What was done to one letter; what is undefined, or as it comes, is dropped. */
export function editLetter(block: Block, at: number, change: Partial<Omit<Letter, "at">>): Block {
  const known = block.letters?.find((l) => l.at === at) ?? { at };
  const edited = Object.fromEntries(
    Object.entries({ ...known, ...change }).filter(([key, value]) => value !== undefined && !isPlain(key, value)),
  ) as Letter;
  const others = (block.letters ?? []).filter((l) => l.at !== at);
  const letters = Object.keys(edited).length > 1 ? [...others, edited].sort((a, b) => a.at - b.at) : others;
  return withList(block, "letters", letters);
}

const isPlain = (key: string, value: unknown) =>
  (value === 0 && ["dxMm", "dyMm", "turnDeg"].includes(key)) ||
  (value === 1 && key === "scale") ||
  (Array.isArray(value) && !value.length);

/** @param shiftEm - 0 removes the pair. */
export function editPair(block: Block, at: number, shiftEm: number): Block {
  const others = (block.pairs ?? []).filter((p) => p.at !== at);
  const pairs = shiftEm ? [...others, { at, shiftEm }].sort((a, b) => a.at - b.at) : others;
  return withList(block, "pairs", pairs);
}

function withList<K extends "letters" | "pairs" | "bridges">(block: Block, key: K, list: NonNullable<Block[K]>): Block {
  const { [key]: _, ...rest } = block;
  return (list.length ? { ...rest, [key]: list } : rest) as Block;
}

/** Another text: what was done to letters before and after the change stays with them. */
export function editText(block: Block, text: string): Block {
  const [was, now] = [[...block.text.replace(/\r?\n/g, "")], [...text.replace(/\r?\n/g, "")]];
  let before = 0;
  while (before < was.length && before < now.length && was[before] === now[before]) before++;
  let after = 0;
  while (
    after < was.length - before &&
    after < now.length - before &&
    was[was.length - 1 - after] === now[now.length - 1 - after]
  )
    after++;
  const move = (at: number): number | null => {
    if (at < before) return at;
    return at >= was.length - after ? at + now.length - was.length : null;
  };
  const moveAll = <T extends { at: number; to?: number | undefined }>(list: readonly T[] | undefined): T[] =>
    (list ?? []).flatMap((entry) => {
      const at = move(entry.at);
      const to = entry.to === undefined ? undefined : move(entry.to);
      return at === null || to === null ? [] : [{ ...entry, at, ...(to !== undefined && { to }) }];
    });
  let edited: Block = { ...block, text };
  edited = withList(edited, "letters", moveAll(block.letters));
  edited = withList(edited, "pairs", moveAll(block.pairs));
  return withList(edited, "bridges", moveAll(block.bridges));
}

/** What stands for a glyph that no character reaches: it takes no ink, and no line breaks at it. */
const CARRIER = "\u00a0";

/**
 * Another letter after one. What was done to those that follow goes along with them.
 * @param end - where that one ends in the text. @param glyph - drawn instead of the character; absent: the character as it comes.
 */
export function insertLetter(
  block: Block,
  at: number,
  end: number,
  character: string | null,
  glyph?: Pick<Letter, "glyphId" | "feature">,
): Block {
  const moveAll = <T extends { at: number; to?: number | undefined }>(list: readonly T[] | undefined): T[] =>
    (list ?? []).map((entry) => ({
      ...entry,
      at: entry.at > at ? entry.at + 1 : entry.at,
      ...(entry.to !== undefined && { to: entry.to > at ? entry.to + 1 : entry.to }),
    }));
  let edited: Block = { ...block, text: block.text.slice(0, end) + (character ?? CARRIER) + block.text.slice(end) };
  edited = withList(edited, "letters", moveAll(block.letters));
  edited = withList(edited, "pairs", moveAll(block.pairs));
  edited = withList(edited, "bridges", moveAll(block.bridges));
  return glyph ? editLetter(edited, at + 1, glyph) : edited;
}

/** All that was done to its letters is undone: text as the face sets it. */
export function backToText(block: Block): Block {
  const { letters: _, bridges: __, growMm: ___, joined: ____, keepsCounters: _____, ...text } = block;
  return text;
}

/** The group that blocks are kept together in where nobody named one. */
export const TOGETHER = "lettering";

/** All blocks as one group, which every file carries. */
export const keepTogether = (document: LetteringDocument): LetteringDocument => ({
  ...document,
  blocks: document.blocks.map((b) => ({ ...b, keepTogether: TOGETHER })),
});

/** One axis or feature; undefined: as the face has it. */
export function editValue(
  block: Block,
  key: "coordinates" | "features",
  tag: string,
  value: number | undefined,
): Block {
  const { [tag]: _, ...rest } = block[key] ?? {};
  return withValues(block, key, value === undefined ? rest : { ...rest, [tag]: value });
}

/** All axes or features; the field is left out where there is none. */
export const withValues = (block: Block, key: "coordinates" | "features", values: Record<string, number>): Block =>
  withField(block, key, Object.keys(values).length ? values : undefined);

/** Leaves a field out where its value is undefined: documents are compared byte by byte. */
export function withField<K extends keyof Block>(block: Block, key: K, value: Block[K] | undefined): Block {
  const { [key]: _, ...rest } = block;
  return (value === undefined ? rest : { ...block, [key]: value }) as Block;
}
