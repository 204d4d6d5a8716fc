"use client";
// Fonts for a website made of what is kept: for which characters, in which formats, and what may not be made into one.
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { OFFERED_LANGUAGES, type WebkitCharacters, type WebkitPlan, type WebkitRequest } from "@/contracts/webkit";
import { useBench } from "../bench/BenchContext";
import { useJobs } from "../bench/FootLine";
import { Choice } from "../parts/Choice";
import { queryOf, useChange } from "../parts/client";
import { Tick } from "../parts/Tick";
import { Made } from "./Made";

const CHARACTERS = [
  { value: "brief", name: "The brief’s words" },
  { value: "language", name: "A language" },
  { value: "text", name: "A text" },
  { value: "all", name: "Everything in the font" },
] as const;
type Sort = (typeof CHARACTERS)[number]["value"];
type Settings = { sort: Sort; language: string; text: string; woff: boolean; hold: boolean };

const languageNames = new Intl.DisplayNames(["en"], { type: "language" });
const LANGUAGES = OFFERED_LANGUAGES.map((code) => ({ value: code, name: languageNames.of(code) ?? code })).sort(
  (a, b) => a.name.localeCompare(b.name),
);

const charactersOf = ({ sort, language, text }: Settings): WebkitCharacters =>
  sort === "language" ? { language } : sort === "text" ? { text } : sort;

export function WebFonts() {
  const { brief, sayFault, say } = useBench();
  const params = { id: brief.briefId };
  const change = useChange();
  const jobs = useJobs(500);
  const [settings, setSettings] = useState<Settings>({
    sort: "brief",
    language: "en",
    text: "",
    woff: false,
    hold: false,
  });
  const plan = useQuery({
    ...queryOf("planWebkit", { params }, brief.kept),
    placeholderData: (before) => before,
  });
  const inside = plan.data?.faces.filter((f) => f.refusal === null) ?? [];
  const mine = jobs.data?.jobs.filter((j) => j.kind === "webkit" && j.briefId === brief.briefId) ?? [];
  const isBusy = mine.some((j) => j.state === "running" || j.state === "waiting");
  const lacksText = settings.sort === "text" && !settings.text.trim();
  const start = () => {
    const formats: WebkitRequest["formats"] = settings.woff ? ["woff2", "woff"] : ["woff2"];
    const body = {
      styleIds: inside.map((f) => f.styleId),
      characters: charactersOf(settings),
      formats,
      hold: settings.hold,
    };
    change("startWebkit", { params, body })
      .then(() => say("The web fonts are being made."))
      .catch(sayFault);
  };
  return (
    <section className="mt-10" data-webfonts>
      <h2 className="border-b-2 border-slate pb-2 text-[18px] font-bold">Web fonts</h2>
      <p className="mt-2 text-basalt">
        Cut to the characters a site needs, with a style sheet, a sample page and the licences.
      </p>
      <Choices settings={settings} onChange={(part) => setSettings({ ...settings, ...part })} />
      {plan.data && <Refused faces={plan.data.faces} />}
      <button
        type="button"
        className="btn btn-act mt-3"
        disabled={isBusy || !inside.length || lacksText}
        onClick={start}
      >
        {isBusy ? "Being made …" : `Make web fonts (${inside.length} ${inside.length === 1 ? "face" : "faces"})`}
      </button>
      <Made jobs={mine.slice(0, 6)} />
    </section>
  );
}

function Choices({ settings, onChange }: { settings: Settings; onChange: (part: Partial<Settings>) => void }) {
  const { brief } = useBench();
  const { sort, language, text, woff, hold } = settings;
  const hasPlaces = brief.kept.some((k) => Object.keys(k.location).length > 0);
  return (
    <div className="mt-2 grid gap-2">
      <p className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <span className="text-basalt">Characters</span>
        <Choice label="Characters" value={sort} options={[...CHARACTERS]} onChange={(v) => onChange({ sort: v })} />
        {sort === "language" && (
          <Choice label="Language" value={language} options={LANGUAGES} onChange={(v) => onChange({ language: v })} />
        )}
      </p>
      {sort === "text" && (
        <textarea
          aria-label="Text whose characters are needed"
          className="field h-20 w-full"
          maxLength={20_000}
          value={text}
          onChange={(e) => onChange({ text: e.target.value })}
        />
      )}
      <Tick
        name="WOFF as well"
        says="beside WOFF2, for browsers from before 2018"
        checked={woff}
        onChange={(v) => onChange({ woff: v })}
      />
      {hasPlaces && (
        <Tick
          name="Fix variable fonts where they are kept"
          says="smaller; otherwise they stay variable"
          checked={hold}
          onChange={(v) => onChange({ hold: v })}
        />
      )}
    </div>
  );
}

/** What may not become a web font, with the sentence of its terms. */
function Refused({ faces }: { faces: WebkitPlan["faces"] }) {
  const refused = faces.filter((f) => f.refusal !== null);
  if (!refused.length) return null;
  return (
    <div className="mt-2 border-l-[3px] border-ochre pl-4" data-refused>
      <p className="font-semibold">Left out</p>
      <ul>
        {refused.map((face) => (
          <li key={face.styleId} className="py-0.5">
            {face.name}: {face.refusal}
            {face.quote && <q className="ml-1 text-basalt italic">{face.quote}</q>}
          </li>
        ))}
      </ul>
    </div>
  );
}
