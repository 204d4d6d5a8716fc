"use client";
// Identify: pictures of lettering, each open in a case of its own, and those that were kept with the brief.
import { useQuery } from "@tanstack/react-query";
import Link from "next/link";
import { useSearchParams } from "next/navigation";
import { useCallback, useEffect, useReducer, useRef, useState, type Dispatch } from "react";
import type { IdentificationSummary } from "@/contracts/identifications";
import { useBench } from "../bench/BenchContext";
import { addressOf, ask, queryOf } from "../parts/client";
import { casesReducer, NO_CASES, openFiles, type CasesAction, type OpenCase } from "./cases";
import { Chooser, DropArea } from "./DropArea";
import { setKept } from "./kept";
import { readOpenCases, writeOpenCases, type CaseSnapshot } from "./openCases";
import { writeChance } from "./MatchRow";
import { PictureCase } from "./PictureCase";

const PICTURES = "image/*";

export function IdentifyView() {
  const { brief } = useBench();
  const [{ cases, shown }, dispatch] = useReducer(casesReducer, NO_CASES);
  const choose = useCallback((files: readonly File[]) => dispatch({ type: "opened", cases: openFiles(files) }), []);
  const onLeft = useLeftOpen(brief.briefId, cases, dispatch);
  useWantedCase(dispatch);
  usePaste(choose);
  if (!cases.length) return <Start onFiles={choose} />;
  return (
    <div className="flex h-full flex-col">
      <ul className="flex shrink-0 gap-px overflow-x-auto border-b border-rule bg-rule" aria-label="Pictures">
        {cases.map((c) => (
          <CaseTab
            key={c.key}
            name={c.file.name}
            isShown={c.key === shown}
            onShow={() => dispatch({ type: "shown", key: c.key })}
            onClose={() => dispatch({ type: "closed", key: c.key })}
          />
        ))}
        <li className={`px-3 py-1 ${shown === null ? "bg-chalk" : "bg-limestone"}`}>
          <button type="button" aria-pressed={shown === null} onClick={() => dispatch({ type: "shown", key: null })}>
            New, and kept before
          </button>
        </li>
      </ul>
      {shown === null && <Start onFiles={choose} />}
      <div className="min-h-0 flex-1" hidden={shown === null}>
        {cases.map((c) => (
          <PictureCase key={c.key} open={c} isShown={c.key === shown} onFiles={choose} onLeft={onLeft} />
        ))}
      </div>
    </div>
  );
}

type TabProps = { name: string; isShown: boolean; onShow: () => void; onClose: () => void };

const CaseTab = ({ name, isShown, onShow, onClose }: TabProps) => (
  <li className={`flex items-center gap-2 px-3 py-1 ${isShown ? "bg-chalk" : "bg-limestone"}`}>
    <button
      type="button"
      aria-pressed={isShown}
      className={`max-w-[160px] truncate ${isShown ? "font-bold" : ""}`}
      onClick={onShow}
    >
      {name}
    </button>
    <button type="button" aria-label={`Close ${name}`} className="min-h-6 min-w-6 text-basalt" onClick={onClose}>
      ×
    </button>
  </li>
);

/** A kept identification stands in the address, so that back and reload find it. */
function useWantedCase(dispatch: Dispatch<CasesAction>) {
  const { brief, sayFault } = useBench();
  const wanted = useSearchParams().get("kept");
  useEffect(() => {
    if (!wanted) return;
    let isGone = false;
    openKept(brief.briefId, wanted)
      .then((opened) => !isGone && dispatch({ type: "opened", cases: [opened] }))
      .catch((error: Error) => !isGone && sayFault(error));
    return () => {
      isGone = true;
    };
  }, [wanted, brief.briefId, sayFault, dispatch]);
}

/** Pictures of the clipboard are opened like those that are dropped. */
function usePaste(choose: (files: readonly File[]) => void) {
  const { say } = useBench();
  useEffect(() => {
    const onPaste = (event: ClipboardEvent) => {
      const files = [...(event.clipboardData?.files ?? [])].filter((f) => f.type.startsWith("image/"));
      if (files.length) choose(files);
      else if (!(event.target as HTMLElement).closest("input, textarea")) say("The clipboard holds no picture.");
    };
    window.addEventListener("paste", onPaste);
    return () => window.removeEventListener("paste", onPaste);
  }, [choose, say]);
}

const LEFT_AFTER_MS = 250;

/** Finds the cases again that were open, and keeps those that are. @returns what a case tells of itself. */
function useLeftOpen(briefId: string, cases: readonly OpenCase[], dispatch: Dispatch<CasesAction>) {
  const snapshots = useRef(new Map<string, CaseSnapshot>());
  const [isRead, setRead] = useState(false);
  useEffect(() => {
    let isGone = false;
    void readOpenCases(briefId).then((left) => {
      if (isGone) return;
      for (const { key, snapshot } of left) if (snapshot) snapshots.current.set(key, snapshot);
      dispatch({
        type: "found",
        cases: left.map(({ key, file, snapshot }) => ({ key, file, saved: null, left: snapshot })),
      });
      setRead(true);
    });
    return () => {
      isGone = true;
    };
  }, [briefId, dispatch]);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const write = useCallback(() => {
    clearTimeout(timer.current);
    if (!isRead) return;
    timer.current = setTimeout(() => {
      // What is kept with the brief stands in its list, and needs no second place.
      const open = cases.filter((c) => !c.saved && !snapshots.current.get(c.key)?.savedAs);
      void writeOpenCases(
        briefId,
        open.map(({ key, file }) => ({ key, file, snapshot: snapshots.current.get(key) ?? null })),
      );
    }, LEFT_AFTER_MS);
  }, [briefId, cases, isRead]);
  useEffect(write, [write]);
  return useCallback(
    (key: string, snapshot: CaseSnapshot) => {
      snapshots.current.set(key, snapshot);
      write();
    },
    [write],
  );
}

async function openKept(briefId: string, id: string): Promise<OpenCase> {
  const params = { id: briefId, identificationId: id };
  const saved = await ask("getIdentification", { params });
  const reply = await fetch(addressOf("getIdentifiedPicture", { params }));
  const file = new File([await reply.blob()], saved.name, { type: saved.type });
  return { key: id, file, saved };
}

function Start({ onFiles }: { onFiles: (files: File[]) => void }) {
  const { brief } = useBench();
  const way = (path: string, says: string) => (
    <Link href={`/b/${brief.briefId}/identify/${path}`} className="font-semibold text-tide underline">
      {says}
    </Link>
  );
  return (
    <DropArea onFiles={onFiles} className="flex h-full flex-col items-start justify-center overflow-y-auto px-16">
      <h1 className="text-[20px] font-bold">Which face is this?</h1>
      <p className="mt-1 text-basalt">
        Drop pictures of lettering here, paste one, or choose files. PNG, JPEG, WebP, GIF, TIFF, AVIF.
      </p>
      <div className="mt-4">
        <Chooser onFiles={onFiles} label="Choose a picture" what="Picture" accept={PICTURES} act multiple />
      </div>
      <p className="mt-6 max-w-[560px] text-basalt">
        One line of text works best. Every style of your libraries is compared letter by letter; you can correct what
        was read.
      </p>
      <p className="mt-3 max-w-[560px] text-basalt">
        No usable picture? {way("questions", "Answer questions about its letters")}, or {way("sketch", "draw them")}. Is
        it in a PDF, a web page or a book? {way("documents", "List the fonts in a document")}.
      </p>
      <KeptBefore briefId={brief.briefId} />
    </DropArea>
  );
}

function KeptBefore({ briefId }: { briefId: string }) {
  const { perform } = useBench();
  const kept = useQuery(queryOf("listIdentifications", { params: { id: briefId } }));
  const list = kept.data?.identifications ?? [];
  const remove = ({ identificationId, name }: IdentificationSummary) =>
    perform(`${name} removed`, setKept(briefId, identificationId, false), setKept(briefId, identificationId, true));
  if (!list.length) return null;
  return (
    <section className="mt-8 w-full max-w-[720px]" aria-label="Kept with this brief">
      <h2 className="border-b border-rule pb-1 font-bold">Kept with this brief</h2>
      <ul>
        {list.map((i) => (
          <li
            key={i.identificationId}
            className="flex items-center gap-4 border-b border-rule py-2"
            data-kept-case={i.name}
          >
            <Link
              href={`/b/${briefId}/identify?kept=${i.identificationId}`}
              className="flex min-w-0 flex-1 items-center gap-4 hover:underline"
            >
              {/* oxlint-disable-next-line nextjs/no-img-element -- the user's picture, served as it came */}
              <img
                src={addressOf("getIdentifiedPicture", {
                  params: { id: briefId, identificationId: i.identificationId },
                })}
                alt=""
                className="h-9 w-24 shrink-0 bg-chalk object-contain"
              />
              <span className="min-w-0 truncate">
                <b>{i.text || i.name}</b> <span className="text-basalt">{writeCase(i)}</span>
              </span>
            </Link>
            <button type="button" className="shrink-0 underline" onClick={() => void remove(i)}>
              Remove
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function writeCase({ first, noneChance }: IdentificationSummary): string {
  if (!first || noneChance > 0.5) return "probably not in your libraries";
  return `${first.family} ${first.style}, ${writeChance(first.chance)}`;
}
