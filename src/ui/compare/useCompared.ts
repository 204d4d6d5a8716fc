"use client";
// What Compare shows: the faces as samples need them, and how they differ, asked again a moment after the words change.
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useMemo, useState } from "react";
import type { Comparison } from "@/contracts/compare";
import type { StyleId } from "@/contracts/ids";
import type { ShownItem } from "@/contracts/styles";
import { useBench } from "../bench/BenchContext";
import { useActiveLine } from "../bench/BriefStrip";
import { useKept } from "../bench/Tray";
import { queryOf } from "../parts/client";
import type { Ranges } from "../parts/CoreSample";

const ASK_AFTER_MS = 300;

function useSettled<T>(value: T): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), ASK_AFTER_MS);
    return () => clearTimeout(timer);
  }, [value]);
  return settled;
}

/** Faces by their ids, in that order; undefined until they are here. */
export function useFaces(ids: readonly string[]): ShownItem[] | undefined {
  const { brief } = useBench();
  const { data } = useQuery({
    ...queryOf("listMapFaces", { query: { briefId: brief.briefId, ids: ids.join(",") } }),
    enabled: ids.length > 0,
    placeholderData: keepPreviousData,
  });
  const byId = new Map<string, ShownItem>(data?.items.map((item) => [item.styleId, item]));
  return data && ids.flatMap((id) => byId.get(id) ?? []);
}

/** Variable faces where they were kept on their axes; one that was kept at several places, or at none, as it comes. */
function useAsKept(faces: ShownItem[] | undefined): ShownItem[] | undefined {
  const { kept } = useBench().brief;
  return useMemo(
    () =>
      faces?.map((face) => {
        const [entry, ...others] = kept.filter((k) => k.styleId === face.styleId);
        return entry && !others.length && Object.keys(entry.location).length
          ? { ...face, axisWanted: entry.location }
          : face;
      }),
    [faces, kept],
  );
}

type Compared = {
  faces: ShownItem[] | undefined;
  comparison: Comparison | undefined;
  ranges: Ranges;
  error: unknown;
};

export function useCompared(ids: readonly string[]): Compared {
  const { brief } = useBench();
  const [active] = useActiveLine();
  const text = useSettled(brief.lines[active]?.text.trim() || brief.name);
  const faces = useAsKept(useFaces(ids));
  const ranges = useKept().data?.ranges ?? {};
  const asked = useQuery({
    ...queryOf("compare", {
      body: { styleIds: ids as StyleId[], briefId: brief.briefId, text, levelBy: brief.levelBy },
    }),
    enabled: ids.length > 1,
    placeholderData: keepPreviousData,
  });
  // Of other faces than are shown it says nothing.
  const comparison = asked.data?.faces.map((f) => f.styleId).join() === ids.join() ? asked.data : undefined;
  return { faces, comparison, ranges, error: asked.error };
}
