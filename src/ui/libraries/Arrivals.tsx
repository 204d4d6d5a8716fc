"use client";
// Bringing in one's own: drop or choose, then a line for every file that was seen, with what came of it and why.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import Link from "next/link";
import { useEffect, useRef, useState } from "react";
import type { ImportItem } from "@/contracts/jobs";
import { useBench } from "../bench/BenchContext";
import { queryOf, readAgain } from "../parts/client";
import { sendFiles } from "../parts/bringIn";

const OUTCOMES = ["added", "already-there", "refused", "ignored"] as const;
const OUTCOME_WORDS: Record<ImportItem["outcome"], { word: string; mark: string; className: string }> = {
  added: { word: "added", mark: "✓", className: "text-lichen" },
  "already-there": { word: "already there", mark: "=", className: "text-tide" },
  refused: { word: "refused", mark: "✕", className: "text-madder" },
  ignored: { word: "ignored", mark: "–", className: "text-basalt" },
};

export function Arrivals({ importId, onImport }: { importId: string | null; onImport: (id: string) => void }) {
  const { sayFault } = useBench();
  const queries = useQueryClient();
  const files = useRef<HTMLInputElement>(null);
  const folder = useRef<HTMLInputElement>(null);
  useEffect(() => folder.current?.setAttribute("webkitdirectory", ""), []);
  const bringIn = (list: FileList | null) => {
    const chosen = [...(list ?? [])].map((file) => ({ file, path: file.webkitRelativePath || file.name }));
    if (!chosen.length) return;
    sendFiles(chosen)
      .then((id) => {
        onImport(id);
        void readAgain(queries, "health");
      })
      .catch(sayFault);
  };
  return (
    <>
      <div className="mt-4 flex items-center justify-between gap-6 border border-dashed border-basalt px-6 py-5">
        <div>
          <p className="text-[16px] font-semibold">Import your own fonts</p>
          <p className="text-basalt">
            Drop fonts, folders or zips on any view: TTF, OTF, TTC, WOFF, WOFF2. Licences and readme files beside them
            are kept as evidence of their terms.
          </p>
        </div>
        <span className="flex shrink-0 gap-2">
          <button type="button" className="btn btn-act" onClick={() => files.current?.click()}>
            Choose files
          </button>
          <button type="button" className="btn" onClick={() => folder.current?.click()}>
            Choose a folder
          </button>
        </span>
        <input
          ref={files}
          type="file"
          multiple
          hidden
          aria-label="Font files"
          accept=".ttf,.otf,.woff,.woff2,.ttc,.otc,.zip,.txt"
          onChange={(e) => {
            bringIn(e.target.files);
            e.target.value = "";
          }}
        />
        <input
          ref={folder}
          type="file"
          hidden
          aria-label="Font folder"
          onChange={(e) => {
            bringIn(e.target.files);
            e.target.value = "";
          }}
        />
      </div>
      {importId && <Report importId={importId} />}
    </>
  );
}

function Report({ importId }: { importId: string }) {
  const queries = useQueryClient();
  const [only, setOnly] = useState<ImportItem["outcome"] | null>(null);
  const report = useQuery({
    ...queryOf("getImport", { params: { id: importId } }),
    refetchInterval: (q) => (q.state.data?.state === "running" || !q.state.data ? 400 : false),
    retry: false,
  });
  const state = report.data?.state;
  useEffect(() => {
    if (state === "done") void readAgain(queries, "health", "styles", "libraries", "log");
  }, [state, queries]);
  if (report.isError) return <p className="mt-4 text-basalt">There is no import with this number.</p>;
  if (!report.data) return null;
  const { done, total, items } = report.data;
  const count = (o: ImportItem["outcome"]) => items.filter((i) => i.outcome === o).length;
  return (
    <section className="mt-5" aria-label="What came of it" data-import-state={state}>
      <div className="flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-slate pb-1.5">
        <h2 className="font-semibold" role="status">
          {state === "running" ? "Reading …" : state === "done" ? "Read" : state}{" "}
          <span className="num">
            {done} of {total} files
          </span>
        </h2>
        {OUTCOMES.filter((o) => count(o) > 0).map((o) => (
          <button
            key={o}
            type="button"
            aria-pressed={only === o}
            className={`${OUTCOME_WORDS[o].className} ${only === o ? "underline" : "hover:underline"}`}
            onClick={() => setOnly(only === o ? null : o)}
          >
            <span className="font-semibold">{count(o)}</span> {OUTCOME_WORDS[o].word}
          </button>
        ))}
      </div>
      <ul>
        {items
          .filter((i) => !only || i.outcome === only)
          .map((item) => (
            <Line key={item.path} item={item} />
          ))}
      </ul>
    </section>
  );
}

function Line({ item }: { item: ImportItem }) {
  const { brief } = useBench();
  const { word, mark, className } = OUTCOME_WORDS[item.outcome];
  const folder = item.path.slice(0, item.path.length - item.name.length);
  // The reason begins with the file's name, which stands beside it already.
  const reason = item.reason?.startsWith(`${item.name}: `) ? item.reason.slice(item.name.length + 2) : item.reason;
  const name = (
    <>
      {folder && <span className="font-normal text-basalt">{folder}</span>}
      {item.name}
    </>
  );
  return (
    <li
      data-outcome={item.outcome}
      data-path={item.path}
      title={item.code}
      className="grid grid-cols-[120px_minmax(0,1.1fr)_minmax(0,1fr)] gap-4 border-b border-rule py-1.5"
    >
      <span className={`font-semibold ${className}`}>
        <span aria-hidden>{mark}</span> {word}
      </span>
      <span className="font-semibold break-words">
        {item.styleId ? (
          <Link className="hover:underline" href={`/b/${brief.briefId}/style/${item.styleId}`}>
            {name}
          </Link>
        ) : (
          name
        )}
      </span>
      <span className="text-basalt">{reason}</span>
    </li>
  );
}
