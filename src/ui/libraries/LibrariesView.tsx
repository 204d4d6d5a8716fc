"use client";
// Libraries: what there is, and bringing in one's own fonts. Every file seen gets its line.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import Link from "next/link";
import { useEffect, useRef, useState } from "react";
import type { ImportItem, ImportReport } from "@/contracts/jobs";
import { useBench } from "../bench/BenchContext";
import { useHealth } from "../bench/Rail";
import { callApi } from "../parts/api";

type LibraryRow = { libraryId: string; name: string; kind: string; styles: number; families: number; addedAt: string };
const KIND_OF: Record<string, string> = {
  packages: "open-licence font packages that came with Fond Quarry",
  own: "fonts that you brought in",
};

export function LibrariesView() {
  const { sayFault, dispatch } = useBench();
  const queries = useQueryClient();
  const count = useHealth().data?.styles;
  const libraries = useQuery({
    queryKey: ["libraries", count],
    queryFn: () => callApi<{ libraries: LibraryRow[] }>("/libraries"),
    placeholderData: (b) => b,
  });
  const [importId, setImportId] = useState<string | null>(null);
  const [isOver, setIsOver] = useState(false);
  const chooser = useRef<HTMLInputElement>(null);
  useEffect(() => dispatch({ type: "facts", facts: [], keys: [] }), [dispatch]);
  const bringIn = async (files: File[]) => {
    if (!files.length) return;
    const form = new FormData();
    files.forEach((f) => form.append("files", f));
    try {
      const { importId: id } = await callApi<{ importId: string }>("/imports", { method: "POST", body: form });
      setImportId(id);
      void queries.invalidateQueries({ queryKey: ["health"] });
    } catch (error) {
      sayFault(error);
    }
  };
  return (
    <div className="h-full overflow-y-auto px-6 py-4">
      <div className="max-w-[980px]">
        <h1 className="border-b-2 border-slate pb-2 text-[18px] font-bold">Libraries</h1>
        <ul>
          {libraries.data?.libraries.map((l) => (
            <li
              key={l.libraryId}
              className="grid grid-cols-[180px_minmax(0,1fr)_110px_110px] items-baseline gap-4 border-b border-rule py-2.5"
            >
              <span className="font-semibold">{l.name}</span>
              <span className="text-basalt">{KIND_OF[l.kind] ?? l.kind}</span>
              <span className="num text-right">
                {l.families} {l.families === 1 ? "family" : "families"}
              </span>
              <span className="num text-right">
                {l.styles} {l.styles === 1 ? "style" : "styles"}
              </span>
            </li>
          ))}
        </ul>
        <div
          onDragOver={(e) => {
            e.preventDefault();
            setIsOver(true);
          }}
          onDragLeave={() => setIsOver(false)}
          onDrop={(e) => {
            e.preventDefault();
            setIsOver(false);
            void bringIn([...e.dataTransfer.files]);
          }}
          className={`mt-6 flex items-center justify-between gap-6 border border-dashed px-6 py-8 ${isOver ? "border-tide bg-chalk" : "border-basalt"}`}
        >
          <div>
            <p className="text-[16px] font-semibold">Bring in your own fonts</p>
            <p className="text-basalt">
              Drop TTF, OTF, WOFF, WOFF2 files or zips here. Licences and readme files in a zip are kept as evidence.
            </p>
          </div>
          <button type="button" className="btn btn-act shrink-0" onClick={() => chooser.current?.click()}>
            Choose files
          </button>
          <input
            ref={chooser}
            type="file"
            multiple
            hidden
            aria-label="Font files"
            accept=".ttf,.otf,.woff,.woff2,.ttc,.zip"
            onChange={(e) => void bringIn([...(e.target.files ?? [])]).then(() => (e.target.value = ""))}
          />
        </div>
        {importId && <Report importId={importId} />}
      </div>
    </div>
  );
}

const OUTCOME_WORDS: Record<ImportItem["outcome"], { word: string; className: string }> = {
  added: { word: "✓ added", className: "text-lichen" },
  "already-there": { word: "= already there", className: "text-basalt" },
  refused: { word: "✕ refused", className: "text-madder" },
  ignored: { word: "– ignored", className: "text-basalt" },
};

function Report({ importId }: { importId: string }) {
  const { brief } = useBench();
  const queries = useQueryClient();
  const report = useQuery({
    queryKey: ["import", importId],
    queryFn: () => callApi<ImportReport>(`/imports/${importId}`),
    refetchInterval: (q) => (q.state.data?.state === "running" || !q.state.data ? 400 : false),
  });
  const state = report.data?.state;
  useEffect(() => {
    if (state === "done")
      for (const key of ["health", "styles", "libraries"]) void queries.invalidateQueries({ queryKey: [key] });
  }, [state, queries]);
  if (!report.data) return null;
  const { done, total, items } = report.data;
  return (
    <section className="mt-6" aria-label="What came of it" data-import-state={state}>
      <h2 className="head flex gap-3" role="status">
        {state === "running" ? "Reading …" : state === "done" ? "Read" : state}{" "}
        <span className="num">
          {done} of {total}
        </span>
      </h2>
      <ul className="mt-1">
        {items.map((item) => (
          <li
            key={item.path}
            data-outcome={item.outcome}
            className="grid grid-cols-[130px_minmax(0,1fr)] gap-4 border-t border-rule py-1.5"
          >
            <span className={`font-semibold ${OUTCOME_WORDS[item.outcome].className}`}>
              {OUTCOME_WORDS[item.outcome].word}
            </span>
            <span>
              {item.styleId ? (
                <Link className="font-semibold hover:underline" href={`/b/${brief.briefId}/style/${item.styleId}`}>
                  {item.path}
                </Link>
              ) : (
                item.path
              )}
              {item.reason && <span className="block text-basalt">{item.reason}</span>}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
