"use client";
// A document as the worker lays it out: the newest answer, and the one before while it is on its way.
import { useEffect, useMemo, useRef, useState } from "react";
import { useQuery } from "@tanstack/react-query";
import type { Block, LetteringDocument } from "@/contracts/lettering";
import { addressOf, ask } from "../parts/client";
import { letterInWorker } from "./letterInWorker";
import type { FontAddresses } from "./letter.worker";
import type { DrawnForm, Laid, LaidBlock, PointsOf } from "./letterTasks";

/** Where the fonts of some styles are: the main file of each, and its other parts where it came in several. */
function useFonts(styleIds: readonly string[]) {
  const key = [...new Set(styleIds)].sort().join();
  const read = useQuery({
    queryKey: ["lettering fonts", key],
    staleTime: Infinity,
    queryFn: async (): Promise<FontAddresses> => {
      const ids = key.split(",").filter(Boolean);
      const parts = await Promise.all(ids.map((id) => ask("listParts", { params: { id } })));
      return Object.fromEntries(
        ids.map((id, i) => [
          id,
          [undefined, ...parts[i]!.parts.map((p) => p.sha256)].map((part) =>
            addressOf("getStyleFile", { params: { id }, query: { packing: "none", part } }),
          ),
        ]),
      );
    },
  });
  return read.data ?? null;
}

export type LaidOut = { blocks: LaidBlock[]; fault: Extract<Laid, { ok: false }> | null; isUnreached: boolean };
const NOTHING: LaidOut = { blocks: [], fault: null, isUnreached: false };

/** Poses change nothing of it. @param pointsOf - a letter whose points are wanted. */
export function useLaid(
  document: LetteringDocument,
  pointsOf: PointsOf | null,
): { laid: LaidOut; fonts: FontAddresses | null } {
  const fonts = useFonts(document.blocks.map((b) => b.styleId));
  const [laid, setLaid] = useState(NOTHING);
  const count = useRef(0);
  const { blockId, at } = pointsOf ?? {};
  const { sheet, blocks } = document;
  useEffect(() => {
    if (!fonts) return;
    const own = ++count.current;
    const points = blockId === undefined || at === undefined ? null : { blockId, at };
    void letterInWorker({ what: "layOut", document: { sheet, blocks }, pointsOf: points, fonts }).then(
      ({ laid: next, isUnreached }) => {
        // Late answers are dropped.
        if (own !== count.current) return;
        if (next?.ok) setLaid({ blocks: next.blocks, fault: null, isUnreached: false });
        // What was laid out before stays in sight while a block cannot be.
        else setLaid((was) => ({ ...was, fault: next ?? null, isUnreached: Boolean(isUnreached) }));
      },
    );
  }, [sheet, blocks, fonts, blockId, at]);
  return { laid, fonts };
}

/** Other forms of a letter; empty until they are there. */
export function useForms(block: Block | null, text: string | null, fonts: FontAddresses | null): DrawnForm[] {
  const [forms, setForms] = useState<{ key: string; list: DrawnForm[] }>({ key: "", list: [] });
  const coordinates = useMemo(() => block?.coordinates ?? {}, [block?.coordinates]);
  const styleId = block?.styleId;
  const key = `${styleId} ${JSON.stringify(coordinates)} ${text}`;
  useEffect(() => {
    if (!styleId || !text?.trim() || !fonts?.[styleId]) return;
    let isGone = false;
    void letterInWorker({ what: "forms", styleId, coordinates, text, fonts }).then((answer) => {
      if (!isGone) setForms({ key, list: answer.forms ?? [] });
    });
    return () => {
      isGone = true;
    };
  }, [styleId, coordinates, text, fonts, key]);
  return forms.key === key ? forms.list : [];
}
