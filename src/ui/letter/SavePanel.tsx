"use client";
// The lettering as a file: what it is written as, and how large a picture; or sent to the plotter that is connected.
import { useState } from "react";
import { useQuery } from "@tanstack/react-query";
import type { LetteringDocument, LetteringFormat } from "@/contracts/lettering";
import { LETTERING_FILES } from "@/contracts/operations/letterings";
import { CUT_FORMATS, type CutFormat, type Plot } from "@/contracts/plotter";
import { useBench } from "../bench/BenchContext";
import { writeFault, type Fault } from "../messages";
import { ask, askFile, faultOf, queryOf } from "../parts/client";
import { FaultNote } from "../parts/FaultNote";
import { saveBlob } from "../parts/saveBlob";
import { NumberField } from "./NumberField";
import { MotionOut } from "./move/MotionOut";
import { OpenDocument } from "./OpenDocument";
import { Tick } from "../parts/Tick";

const FORMATS: { format: LetteringFormat; name: string; note: string }[] = [
  { format: "svg", name: "SVG", note: "outlines in true millimetres, a group per line" },
  { format: "pdf", name: "PDF", note: "vectors in true size, a layer per line" },
  {
    format: "dxf",
    name: "DXF",
    note: "for cutters: closed splines in millimetres, a layer per line and colour",
  },
  { format: "hpgl", name: "HPGL", note: "for plotters: a pen per colour, inner contours first" },
  { format: "png", name: "PNG", note: "a picture, transparent where the sheet has no ground" },
  { format: "jpeg", name: "JPEG", note: "a picture on the brief’s paper" },
  { format: "ora", name: "OpenRaster", note: "a picture with a layer per line" },
];
const PICTURES: LetteringFormat[] = ["png", "jpeg", "ora"];
const DEFAULT_PX = 3000;

type Props = {
  document: LetteringDocument;
  name: string;
  sending: Sending;
  onChange: (document: LetteringDocument) => void;
};

export function SavePanel({ document, name, sending, onChange }: Props) {
  const { brief, say, sayFault } = useBench();
  const [format, setFormat] = useState<LetteringFormat>("svg");
  const [widthPx, setWidthPx] = useState(DEFAULT_PX);
  const [isLive, setLive] = useState(false);
  const [marks, setMarks] = useState(false);
  const [isBusy, setBusy] = useState(false);
  const [refusal, setRefusal] = useState<string | null>(null);
  const chosen = FORMATS.find((f) => f.format === format)!;
  const isPicture = PICTURES.includes(format);
  const save = async () => {
    setBusy(true);
    try {
      const body = {
        ...{ document, format },
        ...(isPicture && { widthPx }),
        ...(format === "jpeg" && { paper: brief.paper.toLowerCase() }),
        ...(format === "svg" && isLive && { text: "live" as const }),
        ...(format === "pdf" && marks && { marks: true, bleedMm: 3 }),
      };
      const fileName = `${name}.${LETTERING_FILES[format].extension}`;
      saveBlob(await askFile("writeLettering", { body }), fileName);
      say(`${fileName} saved`);
    } catch (error) {
      sayFault(error);
    } finally {
      setBusy(false);
    }
  };
  const saveDocument = () =>
    saveBlob(new Blob([JSON.stringify(document, null, 1)], { type: "application/json" }), `${name}.json`);
  return (
    <div className="grid gap-2 py-2 text-[12.5px]" data-save>
      <fieldset className="grid grid-cols-1 gap-x-6 lg:grid-cols-2">
        <legend className="sr-only">Save as</legend>
        {FORMATS.map((f) => (
          <label key={f.format} className="flex min-h-6 items-center gap-2">
            <input type="radio" name="format" checked={format === f.format} onChange={() => setFormat(f.format)} />
            <b className="w-20">{f.name}</b> <span className="text-basalt">{f.note}</span>
          </label>
        ))}
      </fieldset>
      <div className="flex min-h-7 flex-wrap items-center gap-x-5">
        {isPicture && (
          <NumberField
            label="Width"
            unit="px"
            step={100}
            least={1}
            most={20_000}
            value={widthPx}
            onChange={(v) => setWidthPx(Math.round(v))}
          />
        )}
        {format === "svg" && <Tick name="Text stays text, in its embedded face" checked={isLive} onChange={setLive} />}
        {format === "pdf" && <Tick name="Cut marks and 3 mm of bleed" checked={marks} onChange={setMarks} />}
        <button type="button" className="btn btn-act" disabled={isBusy} onClick={() => void save()}>
          {isBusy ? "Writing …" : `Save ${chosen.name}`}
        </button>
        <button type="button" className="btn" onClick={saveDocument}>
          The document as JSON
        </button>
        <OpenDocument
          onOpen={(opened, fileName) => {
            setRefusal(null);
            onChange(opened);
            say(`${fileName} opened; undo brings back what was here`);
          }}
          onRefuse={setRefusal}
        />
        <SendField {...{ document, format, sending }} />
      </div>
      {refusal && <FaultNote fault={{ what: refusal, now: "" }} />}
      {sending.fault && <FaultNote fault={writeFault(sending.fault)} />}
      {document.motion && <MotionOut {...{ document, name }} />}
    </div>
  );
}

/** What was sent to the plotter last, and sending another. */
export function useSending() {
  const [fault, setFault] = useState<Fault | null>(null);
  const [sent, setSent] = useState<{ plot: Plot; format: CutFormat } | null>(null);
  const [isBusy, setBusy] = useState(false);
  const send = async (document: LetteringDocument, format: CutFormat) => {
    setBusy(true);
    setFault(null);
    try {
      setSent({ plot: await ask("sendToPlotter", { body: { document, format } }), format });
    } catch (error) {
      setFault(faultOf(error));
    } finally {
      setBusy(false);
    }
  };
  return { sent, fault, isBusy, send, close: () => setSent(null) };
}
export type Sending = ReturnType<typeof useSending>;

const isForCutters = (format: LetteringFormat): format is CutFormat => CUT_FORMATS.some((f) => f === format);

/** The plotter, what it holds, and the button that sends to it; nothing where none is connected. */
function SendField({
  document,
  format,
  sending: { send, isBusy },
}: Pick<Props, "document" | "sending"> & { format: LetteringFormat }) {
  const asked = useQuery({ ...queryOf("getPlotter", {}), retry: false });
  if (asked.error)
    return (
      <span className="flex items-center gap-2 text-basalt">
        The plotter does not answer.
        <button type="button" className="btn-quiet underline" onClick={() => void asked.refetch()}>
          Try again
        </button>
      </span>
    );
  const plotter = asked.data?.plotter;
  if (!plotter || !isForCutters(format)) return null;
  return (
    <span className="flex items-center gap-2">
      <button type="button" className="btn" disabled={isBusy} onClick={() => void send(document, format)}>
        {isBusy ? "Sending …" : "Send to the plotter"}
      </button>
      <span className="text-basalt">
        {plotter.name}, film {plotter.filmWidthMm} mm wide
      </span>
    </span>
  );
}
