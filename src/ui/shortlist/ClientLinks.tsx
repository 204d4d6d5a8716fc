"use client";
// Links for the client: made for what is kept, followed by what comes back, ended by hand or by their date.
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Share, ShareAnswer } from "@/contracts/share";
import { useBench } from "../bench/BenchContext";
import { Choice } from "../parts/Choice";
import { queryOf, useChange } from "../parts/client";

const DAYS = [7, 14, 30, 90].map((value) => ({ value, name: `for ${value} days` }));
const WHICH = [
  { value: "kept", name: "Everything kept" },
  { value: "favourites", name: "Favourites only" },
] as const;

export const useShares = () => {
  const { brief } = useBench();
  return useQuery(queryOf("listShares", { params: { id: brief.briefId } }));
};

const dateOf = (iso: string) => new Date(iso).toLocaleDateString("en-GB", { dateStyle: "long" });

export function ClientLinks() {
  const shares = useShares();
  const list = shares.data?.shares ?? [];
  return (
    <section className="mt-10 max-w-[1080px]" data-client-links>
      <h2 className="border-b-2 border-slate pb-2 text-[16px] font-bold">For the client</h2>
      <p className="mt-2 text-basalt">
        A link shows these faces in the brief’s words, on a phone too. The fonts are cut to these words; whoever has the
        link can choose one and send it back.
      </p>
      <NewLink />
      <ul>
        {list.map((share) => (
          <LinkRow key={share.shareId} share={share} />
        ))}
      </ul>
    </section>
  );
}

function NewLink() {
  const { brief, say, sayFault } = useBench();
  const change = useChange();
  const [days, setDays] = useState(14);
  const [which, setWhich] = useState<(typeof WHICH)[number]["value"]>("kept");
  const [mayComment, setMayComment] = useState(true);
  const favourites = brief.kept.filter((k) => k.favourite);
  const chosen = which === "favourites" && favourites.length ? favourites : brief.kept;
  const make = () => {
    const styleIds = [...new Set(chosen.map((k) => k.styleId))];
    change("createShare", { params: { id: brief.briefId }, body: { styleIds, mayComment, days } })
      .then(async (share) => {
        await navigator.clipboard?.writeText(share.url).catch(() => undefined);
        say("The link is ready.");
      })
      .catch(sayFault);
  };
  return (
    <div className="mt-3 flex flex-wrap items-center gap-x-5 gap-y-2">
      {favourites.length > 0 && <Choice label="Which faces" value={which} options={[...WHICH]} onChange={setWhich} />}
      <Choice label="How long" value={days} options={DAYS} onChange={setDays} />
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          className="accent-tide"
          checked={mayComment}
          onChange={(e) => setMayComment(e.target.checked)}
        />
        may comment
      </label>
      <button type="button" className="btn btn-act" onClick={make}>
        Make a link ({chosen.length})
      </button>
    </div>
  );
}

function LinkRow({ share }: { share: Share }) {
  const { say, sayFault } = useBench();
  const change = useChange();
  const [isAsking, setIsAsking] = useState(false);
  const copy = () =>
    navigator.clipboard
      .writeText(share.url)
      .then(() => say("Link copied."))
      .catch(() => say("The link could not be copied. Select it and copy it by hand."));
  const end = () => change("endShare", { params: { id: share.shareId } }).catch(sayFault);
  return (
    <li className="border-b border-rule py-3" data-share={share.shareId}>
      <p className="flex flex-wrap items-center gap-x-4 gap-y-1">
        {share.isOpen ? (
          <a href={share.url} target="_blank" rel="noreferrer" className="num max-w-full truncate underline">
            {share.url}
          </a>
        ) : (
          <span className="num max-w-full truncate text-basalt line-through">{share.url}</span>
        )}
        <span className="text-basalt">
          {share.styleIds.length} {share.styleIds.length === 1 ? "face" : "faces"} ·{" "}
          {share.isOpen ? `open until ${dateOf(share.expiresAt)}` : "ended"}
        </span>
        {share.isOpen && (
          <>
            <button type="button" className="btn-quiet underline" onClick={() => void copy()}>
              Copy
            </button>
            {isAsking ? (
              <span className="flex items-center gap-2">
                An ended link cannot be opened again.
                <button type="button" className="btn" onClick={() => void end()}>
                  End it
                </button>
                <button type="button" className="btn-quiet underline" onClick={() => setIsAsking(false)}>
                  Leave it open
                </button>
              </span>
            ) : (
              <button type="button" className="btn-quiet underline" onClick={() => setIsAsking(true)}>
                End
              </button>
            )}
          </>
        )}
      </p>
      <p className="mt-1 text-basalt">
        {share.answers.length
          ? `${share.answers.length} ${share.answers.length === 1 ? "answer" : "answers"}, shown with the faces above`
          : "No answer yet"}
      </p>
    </li>
  );
}

/** What clients said of a face. */
export function ClientAnswers({ answers }: { answers: readonly ShareAnswer[] }) {
  if (!answers.length) return null;
  return (
    <ul className="mt-1 text-[12px]" aria-label="From the client">
      {answers.map((answer, i) => (
        <li key={i}>
          <span className="font-semibold text-tide">
            {answer.name} {answer.chosen ? "chose this" : "says"}
          </span>
          {answer.comment && <q className="ml-1.5">{answer.comment}</q>}
        </li>
      ))}
    </ul>
  );
}
