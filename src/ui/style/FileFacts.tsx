// The file behind a style: its health with every fault, its facts, other files of it, and where it came from.
import type { ReactNode } from "react";
import type { StyleDetail } from "@/contracts/styles";
import { writeWhen } from "../parts/words";

const DEGREE = { fine: "Fine", "with-care": "Usable with care", refused: "Refused" } as const;
const COLOUR = { fine: "text-lichen", "with-care": "text-ochre", refused: "text-madder" } as const;

export function FileFacts({ style }: { style: StyleDetail }) {
  const { health } = style;
  const care = health.faults.filter((f) => f.weight !== "note");
  const notes = health.faults.filter((f) => f.weight === "note");
  return (
    <div className="grid max-w-[980px] gap-5">
      <section aria-label="Health">
        <h2 className="head mb-1">Health</h2>
        <p className={`text-[16px] font-semibold ${COLOUR[health.degree]}`}>
          {DEGREE[health.degree]}
          <span className="text-[13px] font-normal text-basalt">
            {" "}
            {health.faults.length ? "" : "· no fault was found in its tables, names, metrics and letters"}
          </span>
        </p>
        <Faults faults={care} />
        {notes.length > 0 && <p className="mt-2 text-basalt">Worth knowing, no reason for care:</p>}
        <Faults faults={notes} />
      </section>
      <Facts
        rows={[
          ["Foundry", style.foundry],
          ["Designer", style.designer],
          ["Version", style.version],
          ["Copyright", style.names["0"] ?? ""],
          ["Formats", style.formats.join(", ")],
          ["Features", style.features.join(" ")],
          ["Coverage", style.coverage.blocks.map((b) => `${b.name} ${b.have} of ${b.of}`).join(" · ")],
          [
            "SHA-256",
            <span key="sha" className="num break-all">
              {style.sha256}
            </span>,
          ],
        ]}
      />
      <section aria-label="Where it came from">
        <h2 className="head mb-1">Where it came from</h2>
        <table className="w-full text-left">
          <tbody>
            {style.provenance.map((p, i) => (
              <tr key={i} className="border-t border-rule align-top">
                <td className="num w-40 py-1">{writeWhen(p.importedAt)}</td>
                <td className="w-40 py-1">{p.libraryName}</td>
                <td className="py-1 break-all">{p.path}</td>
                <td className="num w-28 py-1" title={p.sha256}>
                  {p.sha256.slice(0, 12)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
      {style.parts.length > 0 && <Parts parts={style.parts} />}
      {style.alternatives.length > 0 && (
        <section aria-label="Alternatives">
          <h2 className="head mb-1">Other files of this style</h2>
          <ul>
            {style.alternatives.map((a) => (
              <li key={a.sha256} className="grid grid-cols-[160px_160px_minmax(0,1fr)] border-t border-rule py-1">
                <span className="num">{writeWhen(a.addedAt)}</span>
                <span>{a.format.toUpperCase()}</span>
                <span>
                  {a.name} <span className="num">{a.sha256.slice(0, 12)}</span>
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}

function Parts({ parts }: { parts: StyleDetail["parts"] }) {
  return (
    <section aria-label="Parts">
      <h2 className="head mb-1">Cut by character</h2>
      <p className="mb-1">
        This face came as web fonts that each hold some of its characters. Here they count as one; a hand-over has them
        all.
      </p>
      <ul>
        {parts.map((p) => (
          <li key={p.sha256} className="grid grid-cols-[160px_160px_minmax(0,1fr)] border-t border-rule py-1" data-part>
            <span>{p.scripts.slice(0, 2).join(", ") || "Signs"}</span>
            <span className="num">{p.characters} characters</span>
            <span className="break-all">
              {p.path} <span className="num">{p.sha256.slice(0, 12)}</span>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Faults({ faults }: { faults: StyleDetail["health"]["faults"] }) {
  return (
    <ul>
      {faults.map((f, i) => (
        <li
          key={i}
          className="grid grid-cols-[60px_190px_minmax(0,1fr)] gap-3 border-t border-rule py-1 first:mt-1"
          data-fault={f.code}
        >
          <span className="num">{f.table.trim()}</span>
          <span className="num">{f.code}</span>
          <span>{f.meaning}</span>
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
