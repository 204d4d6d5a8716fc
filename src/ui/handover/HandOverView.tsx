"use client";
// Hand over: what goes into the archive, what speaks against it, the archive itself.
import { useQuery } from "@tanstack/react-query";
import Link from "next/link";
import { useState } from "react";
import type { Kept } from "@/contracts/brief";
import type { HandoverPlan } from "@/contracts/jobs";
import type { StyleListItem } from "@/contracts/styles";
import { useBench } from "../bench/BenchContext";
import { useJobs } from "../bench/FootLine";
import { useKept } from "../bench/Tray";
import { addressOf, queryOf, useChange } from "../parts/client";
import { CareMark } from "../parts/CareMark";
import { addressOfKept, writeSetting } from "../parts/sampleOf";
import { Tick } from "../parts/Tick";
import { VerdictMark } from "../parts/VerdictMark";
import { Made } from "./Made";
import { WebFonts } from "./WebFonts";

const PARTS = [
  { key: "fonts", name: "Font files", says: "TTF or OTF, ready to install" },
  { key: "web", name: "Web files", says: "WOFF2 where supplied" },
  { key: "licences", name: "Licences", says: "the texts that came with each family" },
  { key: "contactSheet", name: "Contact sheet", says: "PDF, every face in the brief’s words" },
] as const;

export function HandOverView() {
  const { brief } = useBench();
  const kept = useKept();
  if (!brief.kept.length)
    return (
      <div className="p-8">
        <h1 className="text-[16px] font-semibold">There is nothing to hand over yet.</h1>
        <p className="mt-1 text-basalt">Keep faces for this brief first.</p>
        <Link className="btn btn-act mt-4 inline-block" href={`/b/${brief.briefId}/find`}>
          Go to the wall
        </Link>
      </div>
    );
  return (
    <div className="h-full overflow-y-auto px-6 py-4">
      <div className="grid max-w-[1080px] grid-cols-[minmax(0,1.5fr)_minmax(0,1fr)] gap-x-12 max-lg:grid-cols-1 max-lg:gap-y-8">
        <section>
          <h1 className="border-b-2 border-slate pb-2 text-[18px] font-bold">Checks for each face</h1>
          <ul>
            {brief.kept.map((entry) => {
              const item = kept.data?.items.find((i) => i.styleId === entry.styleId);
              return item && <FaceChecks key={entry.keptId} item={item} entry={entry} />;
            })}
          </ul>
        </section>
        <div>
          <Archive />
          <WebFonts />
        </div>
      </div>
    </div>
  );
}

/** What goes in, who answers for what is not cleared, and the archives that were made. */
function Archive() {
  const { brief, changeInStep, sayFault, say } = useBench();
  const params = { id: brief.briefId };
  const change = useChange();
  const jobs = useJobs(500);
  const [parts, setParts] = useState<Parts>({ fonts: true, web: true, licences: true, contactSheet: true });
  const [answered, setAnswered] = useState<readonly string[]>([]);
  const plan = useQuery({
    ...queryOf("planHandover", { params }, brief.kept, brief.uses),
    placeholderData: (before) => before,
  });
  // Who saves the archive hands it over; undone like everything else.
  const noteHandedOver = () => {
    if (brief.state !== "handed-over") changeInStep({ state: "handed-over" }, `${brief.name} is handed over`);
  };
  const answeredFor = (plan.data?.toAnswerFor ?? []).filter((f) => answered.includes(f.styleId));
  const inside = [...(plan.data?.cleared ?? []), ...answeredFor];
  const mine = jobs.data?.jobs.filter((j) => j.kind === "handover" && j.briefId === brief.briefId) ?? [];
  const isBusy = mine.some((j) => j.state === "running" || j.state === "waiting");
  const start = () =>
    change("startHandover", { params, body: { ...parts, responsibleFor: answeredFor.map((f) => f.styleId) } })
      .then(() => say("The archive is being made."))
      .catch(sayFault);
  return (
    <section>
      <h2 className="border-b-2 border-slate pb-2 text-[18px] font-bold">The archive</h2>
      <PartChoices parts={parts} onChange={setParts} />
      {plan.data && (
        <Answering
          plan={plan.data}
          answered={answered}
          onChange={setAnswered}
          lacksWeb={parts.web && !inside.some((f) => f.hasWebFile)}
        />
      )}
      <p className="mt-1 flex gap-4 pl-5">
        <a className="underline hover:text-tide" href={addressOf("writeCredits", { params })}>
          Credits only
        </a>
        <a className="underline hover:text-tide" href={addressOf("writeSpdx", { params })}>
          Licences as SPDX
        </a>
        <a className="underline hover:text-tide" href={addressOf("writeTokens", { params })}>
          Design tokens
        </a>
        <a className="underline hover:text-tide" href={addressOf("writeBriefFile", { params })}>
          Brief as JSON
        </a>
      </p>
      <button type="button" className="btn btn-act mt-3" disabled={isBusy || !plan.data} onClick={() => void start()}>
        {isBusy ? "Being made …" : `Make the archive (${inside.length} ${inside.length === 1 ? "face" : "faces"})`}
      </button>
      <Made jobs={mine.slice(0, 6)} onSave={noteHandedOver} />
    </section>
  );
}

type Parts = Record<(typeof PARTS)[number]["key"], boolean>;

function PartChoices({ parts, onChange }: { parts: Parts; onChange: (parts: Parts) => void }) {
  return (
    <ul className="mt-2">
      {PARTS.map(({ key, name, says }) => (
        <li key={key} className="py-1">
          <Tick {...{ name, says }} checked={parts[key]} onChange={(v) => onChange({ ...parts, [key]: v })} />
        </li>
      ))}
      <li className="py-1 pl-5 text-basalt">
        Always inside: credits.txt, rights.spdx.json, sources.csv, shortlist.csv, brief.json, tokens.json, and what was
        decided
      </li>
    </ul>
  );
}

type AnsweringProps = {
  plan: HandoverPlan;
  answered: readonly string[];
  onChange: (styleIds: string[]) => void;
  lacksWeb: boolean;
};

/** Faces that are not cleared go in only when somebody answers for them; what stays out is said before. */
function Answering({ plan, answered, onChange, lacksWeb }: AnsweringProps) {
  const { toAnswerFor, notOwned } = plan;
  const toggle = (id: string) => onChange(answered.includes(id) ? answered.filter((a) => a !== id) : [...answered, id]);
  return (
    <div className="mt-2 mb-2 border-l-[3px] border-ochre pl-4 empty:hidden" data-answering>
      {toAnswerFor.length > 0 && (
        <fieldset>
          <legend className="font-semibold">Not cleared: tick what you answer for, the rest is left out</legend>
          {toAnswerFor.map((face) => (
            <label key={face.styleId} className="flex items-baseline gap-2 py-0.5">
              <input
                type="checkbox"
                className="accent-tide"
                checked={answered.includes(face.styleId)}
                onChange={() => toggle(face.styleId)}
              />
              {face.name} <VerdictMark verdict={face.verdict} price={null} />
            </label>
          ))}
        </fieldset>
      )}
      {notOwned.length > 0 && <p>Left out, not bought yet: {notOwned.map((f) => f.name).join(", ")}.</p>}
      {lacksWeb && <p>The folder for web files stays empty: no face inside came as WOFF2.</p>}
    </div>
  );
}

function FaceChecks({ item, entry }: { item: StyleListItem; entry: Kept }) {
  const { brief } = useBench();
  const asked = { params: { id: brief.briefId }, query: { styleId: item.styleId } };
  const checks = useQuery(queryOf("checkStyle", asked, brief.lines, brief.uses, brief.wanted));
  const against = checks.data?.checks.filter((c) => c.outcome !== "pass") ?? [];
  return (
    <li className="border-b border-rule py-2.5">
      <p className="flex gap-4">
        <Link href={addressOfKept(brief.briefId, entry)} className="hover:underline">
          <span className="font-semibold">
            {item.family} {item.style}
          </span>
          {writeSetting(entry) && <span className="text-basalt"> · {writeSetting(entry)}</span>}
        </Link>
        <VerdictMark verdict={item.verdict} price={item.price} />
        <CareMark health={item.health} />
        {checks.data && (
          <span className="text-basalt">
            {checks.data.checks.length - against.length} of {checks.data.checks.length} checks passed
          </span>
        )}
      </p>
      {!item.owned && (
        <p className="mt-1 text-madder">
          <span className="font-semibold">✕ file:</span> not bought yet; left out of the archive.
        </p>
      )}
      <ul>
        {against.map((c, i) => (
          <li key={i} className={`mt-1 ${c.outcome === "fail" ? "text-madder" : "text-ochre"}`}>
            <span className="font-semibold">
              {c.outcome === "fail" ? "✕" : "▲"} {c.subject}:
            </span>{" "}
            {c.reason}
          </li>
        ))}
      </ul>
    </li>
  );
}
