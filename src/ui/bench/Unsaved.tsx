"use client";
// What is not saved yet, as a quiet standing mark; and the question where two people changed the same words.
import { useEffect, useState } from "react";
import { signInFor } from "@/contracts/access";
import type { Conflict } from "@/core/brief/mergeBrief";
import { useBench } from "./BenchContext";
import { SIGNED_OUT } from "./saves";

/** A save that takes no longer is not worth a word. */
const SHOWN_AFTER_MS = 1_500;

export function UnsavedMark() {
  const { unsaved, isAway, retrySaves } = useBench();
  const [isLong, setLong] = useState(false);
  const isWaiting = unsaved.count > 0;
  useEffect(() => {
    if (!isWaiting) return;
    const timer = setTimeout(() => setLong(true), SHOWN_AFTER_MS);
    return () => {
      clearTimeout(timer);
      setLong(false);
    };
  }, [isWaiting]);
  const isFailing = unsaved.failing !== null;
  if (!isWaiting || !(isLong || isFailing))
    return isAway ? (
      <span className="text-ochre" role="status">
        ▲ The server is not answering
      </span>
    ) : null;
  const many = unsaved.count === 1 ? "1 change" : `${unsaved.count} changes`;
  return (
    <span className="flex items-center gap-2 text-ochre" role="status" data-unsaved>
      ▲ {many} not saved yet
      {unsaved.failing === SIGNED_OUT ? (
        <a className="underline hover:text-tide" href={signInFor(window.location.pathname)}>
          Sign in to save
        </a>
      ) : (
        <button type="button" className="btn-quiet underline" onClick={retrySaves}>
          Try now
        </button>
      )}
    </span>
  );
}

const FIELD_WORDS: Record<string, string> = {
  "lines.text": "This line",
  "lines.role": "The role of this line",
  "kept.note": "This note",
  name: "The name",
  note: "The note",
  client: "The client",
  medium: "The medium",
  size: "The size",
  unit: "The unit",
  ink: "The ink",
  paper: "The paper",
  wanted: "The extra characters",
  levelBy: "The levelling",
};

export function ConflictNotice() {
  const { conflict } = useBench();
  if (!conflict) return null;
  const { conflicts, answer } = conflict;
  return (
    <div
      role="alertdialog"
      aria-label="Changed elsewhere"
      className="fixed inset-x-0 bottom-10 z-50 mx-auto w-[620px] rounded-sm border border-rule bg-chalk px-5 py-4 shadow-lg"
    >
      <h2 className="font-bold">Changed elsewhere in the meantime</h2>
      {conflicts.map((c) => (
        <ConflictRow key={`${c.field} ${c.id}`} conflict={c} />
      ))}
      <p className="mt-3 flex gap-3">
        <button type="button" className="btn btn-act" onClick={() => answer("mine")}>
          Keep mine
        </button>
        <button type="button" className="btn" onClick={() => answer("theirs")}>
          Keep theirs
        </button>
        <button type="button" className="btn" onClick={() => answer("both")}>
          Keep both
        </button>
      </p>
    </div>
  );
}

function ConflictRow({ conflict: { field, mine, theirs } }: { conflict: Conflict }) {
  return (
    <dl className="mt-2 grid grid-cols-[70px_minmax(0,1fr)] gap-x-3">
      <dt className="col-span-2 text-basalt">{FIELD_WORDS[field] ?? field}</dt>
      <dt className="text-basalt">Yours</dt>
      <dd className="break-words">{String(mine)}</dd>
      <dt className="text-basalt">Theirs</dt>
      <dd className="break-words">{String(theirs)}</dd>
    </dl>
  );
}
