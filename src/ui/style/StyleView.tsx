"use client";
// One style: large in the brief's words, its family, measures, axes, glyphs, terms with their sentences, health and where it came from.
import { Tab, TabGroup, TabList, TabPanel, TabPanels } from "@headlessui/react";
import Link from "next/link";
import { useEffect, useState, type ReactNode } from "react";
import type { StyleDetail } from "@/contracts/styles";
import { USES } from "@/contracts/traits";
import { KIND_WORDS, TREATMENT_WORDS, USE_WORDS } from "@/contracts/words";
import { levelFactor } from "@/core/brief/level";
import { nameCharacter } from "@/core/open/characterNames";
import { isTyping } from "../bench/Bench";
import { useBench } from "../bench/BenchContext";
import { useActiveLine } from "../bench/BriefStrip";
import { CoreSample } from "../parts/CoreSample";
import { Sample } from "../parts/Sample";
import { VerdictMark } from "../parts/VerdictMark";
import { Glyphs } from "./Glyphs";
import { Measures } from "./Measures";

export function StyleView({ style }: { style: StyleDetail }) {
  const { brief, toggleKept, dispatch } = useBench();
  const [active] = useActiveLine();
  const [axes, setAxes] = useState<Record<string, number>>({});
  const name = `${style.family} ${style.style}`;
  const isKept = brief.kept.some((k) => k.styleId === style.styleId);
  useEffect(() => {
    dispatch({
      type: "facts",
      facts: [
        name,
        `${style.glyphCount} glyphs`,
        `${style.coverage.count} characters`,
        style.rights.spdx ?? "no licence recognised",
      ],
      keys: [{ key: "Space", does: isKept ? "let go" : "keep" }],
    });
  }, [dispatch, name, style, isKept]);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== " " || isTyping(event) || (event.target as HTMLElement).closest("button, a, [tabindex='0']"))
        return;
      event.preventDefault();
      toggleKept(style.styleId, name);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [toggleKept, style.styleId, name]);
  const set = { ...Object.fromEntries(style.axes.map((a) => [a.tag, a.default])), ...axes };
  return (
    <div className="h-full overflow-y-auto">
      <header className="flex items-start gap-5 px-6 pt-4">
        <CoreSample traits={style.traits} ranges={style.ranges} width={34} band={13} />
        <div className="min-w-0 flex-1">
          <h1 className="text-[20px] leading-6 font-bold">{name}</h1>
          <p className="mt-0.5 flex flex-wrap gap-x-4 text-basalt">
            <span>{style.kinds.map((k) => KIND_WORDS[k.value]).join(", ")}</span>
            {style.treatments.length > 0 && (
              <span>{style.treatments.map((t) => TREATMENT_WORDS[t.value].toLowerCase()).join(", ")}</span>
            )}
            <span className="text-slate">
              <VerdictMark verdict={style.verdict} />
            </span>
            {style.missing.length > 0 && (
              <span className="font-semibold text-madder">
                lacks {style.missing.map((c) => `${c} (${nameCharacter(c.codePointAt(0)!)})`).join(", ")}
              </span>
            )}
          </p>
        </div>
        <button
          type="button"
          aria-pressed={isKept}
          className={isKept ? "btn" : "btn btn-act"}
          onClick={() => toggleKept(style.styleId, name)}
        >
          {isKept ? "Kept · let go" : "Keep"}
        </button>
      </header>
      <div className="mt-3 border-y border-rule px-6 py-3" style={{ background: brief.paper }}>
        {(brief.lines.length ? brief.lines : [{ text: style.family, role: "title" as const }]).map((line, i) => (
          <Sample
            key={i}
            styleId={style.styleId}
            coverage={style.codePoints}
            text={line.text || " "}
            sizePx={(i === active ? 68 : 32) * levelFactor(style.traits, brief.levelBy)}
            widthEm={style.traits.widthEm}
            ink={brief.ink}
            axes={set}
          />
        ))}
      </div>
      {style.axes.length > 0 && <Axes style={style} values={axes} onChange={setAxes} />}
      <TabGroup className="px-6 pt-3 pb-8">
        <TabList className="flex gap-6 border-b border-rule">
          {["Glyphs", `Family (${style.siblings.length})`, "Measures", "Terms", "File"].map((t) => (
            <Tab
              key={t}
              className="-mb-px border-b-2 border-transparent pb-1.5 font-semibold text-basalt data-selected:border-oxide data-selected:text-slate"
            >
              {t}
            </Tab>
          ))}
        </TabList>
        <TabPanels className="pt-3">
          <TabPanel tabIndex={-1}>
            <Glyphs style={style} />
          </TabPanel>
          <TabPanel tabIndex={-1}>
            <Family style={style} />
          </TabPanel>
          <TabPanel tabIndex={-1}>
            <Measures style={style} />
          </TabPanel>
          <TabPanel tabIndex={-1}>
            <Terms style={style} />
          </TabPanel>
          <TabPanel tabIndex={-1}>
            <FileFacts style={style} />
          </TabPanel>
        </TabPanels>
      </TabGroup>
    </div>
  );
}

function Axes({
  style,
  values,
  onChange,
}: {
  style: StyleDetail;
  values: Record<string, number>;
  onChange: (v: Record<string, number>) => void;
}) {
  return (
    <section aria-label="Axes" className="flex flex-wrap items-center gap-x-8 gap-y-2 border-b border-rule px-6 py-2.5">
      {style.axes
        .filter((a) => !a.hidden)
        .map((axis) => (
          <label key={axis.tag} className="flex items-center gap-2">
            <span>{axis.name}</span>
            <input
              type="range"
              aria-label={axis.name}
              className="w-28"
              min={axis.min}
              max={axis.max}
              step={(axis.max - axis.min) / 200 || 1}
              value={values[axis.tag] ?? axis.default}
              onChange={(e) => onChange({ ...values, [axis.tag]: Number(e.target.value) })}
            />
            <span className="num w-12">{Number((values[axis.tag] ?? axis.default).toFixed(1))}</span>
          </label>
        ))}
      <button type="button" className="btn-quiet underline" onClick={() => onChange({})}>
        Back to default
      </button>
      {style.instances.length > 0 && (
        <select
          aria-label="Named instance"
          className="border-b border-basalt bg-transparent py-0.5"
          value=""
          onChange={(e) => {
            const instance = style.instances[Number(e.target.value)];
            if (instance) onChange(instance.coordinates);
          }}
        >
          <option value="">Named instance …</option>
          {style.instances.map((s, i) => (
            <option key={i} value={i}>
              {s.name}
            </option>
          ))}
        </select>
      )}
    </section>
  );
}

function Family({ style }: { style: StyleDetail }) {
  const { brief } = useBench();
  const [active] = useActiveLine();
  return (
    <ul>
      {style.siblings.map((s) => (
        <li
          key={s.styleId}
          className={`grid grid-cols-[160px_minmax(0,1fr)] items-center gap-4 border-b border-rule ${s.styleId === style.styleId ? "bg-chalk" : ""}`}
        >
          <Link
            href={`/b/${brief.briefId}/style/${s.styleId}`}
            className="py-2 font-semibold hover:underline"
            aria-current={s.styleId === style.styleId ? "page" : undefined}
          >
            {s.style} {s.weight !== null && !s.variable && <span className="num">{s.weight}</span>}
          </Link>
          <Sample
            styleId={s.styleId}
            axes={s.axisDefaults}
            coverage={style.codePoints}
            text={brief.lines[active]?.text || style.family}
            sizePx={28}
            widthEm={style.traits.widthEm}
          />
        </li>
      ))}
    </ul>
  );
}

function Facts({ rows }: { rows: [string, ReactNode][] }) {
  return (
    <dl className="grid grid-cols-[150px_minmax(0,1fr)] gap-x-4 gap-y-1">
      {rows
        .filter(([, value]) => value !== null && value !== "")
        .map(([label, value]) => (
          <div key={label} className="contents">
            <dt className="text-basalt">{label}</dt>
            <dd className="break-words">{value}</dd>
          </div>
        ))}
    </dl>
  );
}

function Terms({ style }: { style: StyleDetail }) {
  const { rights } = style;
  return (
    <div className="grid max-w-[980px] gap-6">
      <p>
        {rights.spdx ? (
          <>
            Recognised as <b>{rights.spdx}</b>.
          </>
        ) : (
          "No known licence was recognised."
        )}{" "}
        <span className="text-basalt">A reading aid, not legal advice.</span>
      </p>
      <table className="w-full text-left">
        <thead className="text-basalt">
          <tr>
            <th className="w-32 py-1 font-normal">Use</th>
            <th className="w-44 font-normal">Verdict</th>
            <th className="font-normal">The sentence it rests on</th>
          </tr>
        </thead>
        <tbody>
          {USES.map((use) => {
            const { verdict, quotes } = rights.verdicts[use]!;
            return (
              <tr key={use} className="border-t border-rule align-top">
                <td className="py-1.5">{USE_WORDS[use]}</td>
                <td className="py-1.5">
                  <VerdictMark verdict={verdict} />
                </td>
                <td className="py-1.5">
                  {quotes.map((q, i) => (
                    <p key={i}>
                      “{q.text}”{" "}
                      <span className="text-basalt">
                        ({q.source}, {q.place})
                      </span>
                    </p>
                  ))}
                  {!quotes.length && <span className="text-basalt">nothing was found to quote</span>}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {rights.evidence.map((e, i) => (
        <details key={i} open={e.kind === "licence-file"}>
          <summary className="font-semibold">
            {e.source}{" "}
            <span className="font-normal text-basalt">
              · {e.kind.replace("-", " ")} · {e.date.slice(0, 10)}
            </span>
          </summary>
          <pre
            tabIndex={0}
            className="mt-2 max-h-80 overflow-auto border-l-2 border-rule pl-4 font-mono text-[11.5px] leading-[17px] whitespace-pre-wrap"
          >
            {e.text}
          </pre>
        </details>
      ))}
      {!rights.evidence.length && <p className="text-basalt">No text on its terms came with this font.</p>}
    </div>
  );
}

function FileFacts({ style }: { style: StyleDetail }) {
  const { health } = style;
  const degree = { fine: "Fine: no fault was found.", "with-care": "Usable with care:", refused: "Refused:" }[
    health.degree
  ];
  return (
    <div className="grid max-w-[980px] gap-5">
      <section>
        <h2 className="head mb-1">Health</h2>
        <p className={health.degree === "fine" ? "" : "text-ochre"}>{degree}</p>
        <ul>
          {health.faults.map((f, i) => (
            <li key={i}>
              <span className="num">{f.table}</span> {f.meaning}
            </li>
          ))}
        </ul>
      </section>
      <Facts
        rows={[
          ["Foundry", style.foundry],
          ["Designer", style.designer],
          ["Version", style.version],
          ["Copyright", style.names["0"] ?? ""],
          ["Format", style.formats.join(", ")],
          ["Features", style.features.join(" ")],
          ["Coverage", style.coverage.blocks.map((b) => `${b.name} ${b.have} of ${b.of}`).join(" · ")],
          [
            "SHA-256",
            <span key="sha" className="num break-all">
              {style.sha256}
            </span>,
          ],
          [
            "Came from",
            style.provenance
              .map((p) => `${p.library}: ${p.path}, ${p.importedAt.slice(0, 16).replace("T", " ")}`)
              .join("; "),
          ],
        ]}
      />
    </div>
  );
}
