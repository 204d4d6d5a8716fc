"use client";
// The motion as a file: what it is written as, how large; its making with count, rate and time left; then saved, or handed to the cutting room.
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { ClipReport } from "@/contracts/cuttingRoom";
import type { JobId } from "@/contracts/ids";
import type { LetteringDocument } from "@/contracts/lettering";
import type { MotionFormat } from "@/contracts/motion";
import { MOTION_FILES } from "@/contracts/motion";
import type { MotionRequest } from "@/contracts/operations/motion";
import { countFrames, frameSize } from "@/core/motion/frames";
import { useBench } from "../../bench/BenchContext";
import { useCancelJob, useRetryJob, writeTimeLeft } from "../../bench/FootLine";
import { writeFault, type Fault } from "../../messages";
import { addressOf, ask, askFile, faultOf, queryOf } from "../../parts/client";
import { Choice } from "../../parts/Choice";
import { FaultNote } from "../../parts/FaultNote";
import { saveBlob } from "../../parts/saveBlob";
import { Tick } from "../../parts/Tick";

const FORMATS: { format: MotionFormat; name: string; note: string }[] = [
  { format: "webm", name: "WebM", note: "film with alpha (VP9), to lay over footage and on the web" },
  { format: "mp4", name: "MP4", note: "film on a ground (H.264): no alpha" },
  { format: "png-frames", name: "PNG frames", note: "numbered pictures with alpha, for any editing program" },
  { format: "apng", name: "Animated PNG", note: "one picture with alpha" },
  { format: "gif", name: "GIF", note: "256 colours, hard edges" },
  { format: "lottie", name: "Lottie", note: "outlines that move, for apps and pages; axes as changing outlines" },
  { format: "svg", name: "Animated SVG", note: "outlines that move, in one file" },
  { format: "css", name: "CSS", note: "a page with live text in its own font, axes and all" },
];
const WIDTHS = [1280, 1920, 2560, 3840];
const REPEATING: MotionFormat[] = ["apng", "gif", "svg", "css"];

type Props = { document: LetteringDocument; name: string };

export function MotionOut({ document, name }: Props) {
  const [format, setFormat] = useState<MotionFormat>("webm");
  const [widthPx, setWidthPx] = useState(1920);
  const [isOnGround, setOnGround] = useState(false);
  const [repeats, setRepeats] = useState(true);
  const here = useQuery(queryOf("listMotionFormats", {}));
  const out = useMotionJob();
  const { brief } = useBench();
  const lacks = here.data?.formats.find((f) => f.format === format && !f.isHere)?.why;
  const size = frameSize(document.sheet, widthPx);
  const motion = document.motion!;
  const start = () =>
    out.start({
      ...{ document, format, widthPx, briefId: brief.briefId },
      ground: isOnGround ? brief.paper.toLowerCase() : document.sheet.ground,
      ...(REPEATING.includes(format) && { repeats }),
    });
  return (
    <section className="grid gap-2 border-t border-rule py-2 text-[12.5px]" data-motion-out aria-label="The motion">
      <fieldset className="grid grid-cols-1 gap-x-6 lg:grid-cols-2">
        <legend className="pb-1 font-semibold">The motion</legend>
        {FORMATS.map((f) => (
          <label key={f.format} className="flex min-h-6 items-center gap-2">
            <input
              type="radio"
              name="motion-format"
              checked={format === f.format}
              onChange={() => setFormat(f.format)}
            />
            <b className="w-28 shrink-0">{f.name}</b> <span className="text-basalt">{f.note}</span>
          </label>
        ))}
      </fieldset>
      <div className="flex min-h-7 flex-wrap items-center gap-x-5 gap-y-1">
        <Choice
          label="Width"
          value={widthPx}
          options={WIDTHS.map((w) => ({ value: w, name: `${w} px wide` }))}
          onChange={setWidthPx}
        />
        <span className="num text-basalt">
          {size.widthPx} × {size.heightPx}, {countFrames(motion)} frames at {motion.fps} a second
        </span>
        {format !== "mp4" && <Tick name="On the brief’s paper" checked={isOnGround} onChange={setOnGround} />}
        {REPEATING.includes(format) && <Tick name="Begins again at its end" checked={repeats} onChange={setRepeats} />}
        <button type="button" className="btn btn-act" disabled={out.isBusy || Boolean(lacks)} onClick={start}>
          Make {FORMATS.find((f) => f.format === format)!.name}
        </button>
        <StripButton {...{ document, name }} />
      </div>
      {lacks && <FaultNote fault={{ what: lacks, now: "" }} />}
      {out.fault && <FaultNote fault={writeFault(out.fault)} />}
      {out.made && <Made key={out.made.jobId} {...out.made} name={name} />}
    </section>
  );
}

/** One motion in the making, or made. */
function useMotionJob() {
  const [fault, setFault] = useState<Fault | null>(null);
  const [made, setMade] = useState<{ jobId: JobId; format: MotionFormat } | null>(null);
  const [isBusy, setBusy] = useState(false);
  const start = async (body: MotionRequest) => {
    setBusy(true);
    setFault(null);
    try {
      const { jobId } = await ask("startMotion", { body });
      setMade({ jobId, format: body.format });
    } catch (error) {
      setFault(faultOf(error));
    } finally {
      setBusy(false);
    }
  };
  return { fault, made, isBusy, start: (body: MotionRequest) => void start(body) };
}

const LOOK_MS = 500;
/** What was begun at the lower edge of the window is told below it. */
const bringIntoView = (part: HTMLElement | null) => part?.scrollIntoView({ block: "nearest" });

function Made({ jobId, format, name }: { jobId: JobId; format: MotionFormat; name: string }) {
  const cancel = useCancelJob();
  const retry = useRetryJob();
  const read = useQuery({
    ...queryOf("getJob", { params: { id: jobId } }),
    refetchInterval: ({ state }) =>
      state.data && !["waiting", "running"].includes(state.data.state) ? false : LOOK_MS,
  });
  const job = read.data;
  if (!job) return null;
  const isOpen = job.state === "waiting" || job.state === "running";
  return (
    <div
      ref={bringIntoView}
      className="flex min-h-8 flex-wrap items-center gap-x-4 gap-y-1 border-l-[3px] border-tide bg-chalk px-3 py-1"
      role="status"
      data-made={job.state}
    >
      {isOpen && (
        <>
          <progress
            className="h-1.5 w-40 accent-tide"
            max={job.total || 1}
            value={job.done}
            aria-label={`${job.title}: progress`}
          />
          <span className="num">
            {job.message && job.done === job.total ? job.message : `${job.done} of ${job.total}`}
            {job.rate ? ` · ${job.rate}/s` : ""}
            {job.secondsLeft ? ` · ${writeTimeLeft(job.secondsLeft)}` : ""}
          </span>
          <button type="button" className="btn" onClick={() => cancel(jobId)}>
            Cancel
          </button>
        </>
      )}
      {job.state === "cancelled" && "Cancelled. What was drawn is kept."}
      {job.state === "failed" && <span className="text-madder">{job.message}</span>}
      {(job.state === "cancelled" || job.state === "failed") && (
        <button type="button" className="btn" onClick={() => void retry(jobId)}>
          Go on from there
        </button>
      )}
      {job.state === "done" && (
        <>
          <span>{job.title} is made.</span>
          <a
            className="btn"
            href={addressOf("getJobFile", { params: { id: jobId } })}
            download={`${name}.${MOTION_FILES[format].extension}`}
          >
            Save the file
          </a>
          <HandOver {...{ jobId, name }} />
        </>
      )}
    </div>
  );
}

/** The cutting room, and what it says of the clip. Nothing where none is connected. */
function HandOver({ jobId, name }: { jobId: JobId; name: string }) {
  const room = useQuery({ ...queryOf("getCuttingRoom", {}), retry: false });
  const [report, setReport] = useState<ClipReport | null>(null);
  const [fault, setFault] = useState<Fault | null>(null);
  const hand = async () => {
    setFault(null);
    try {
      setReport(await ask("handToCuttingRoom", { body: { jobId, name } }));
    } catch (error) {
      setReport(null);
      setFault(faultOf(error));
    }
  };
  const { cuttingRoom } = room.data ?? {};
  if (room.error) return <span className="text-basalt">The cutting room does not answer.</span>;
  if (!cuttingRoom) return null;
  return (
    <>
      <button type="button" className="btn" onClick={() => void hand()}>
        Hand to the cutting room
      </button>
      <span className="text-basalt">
        {cuttingRoom.name}, {cuttingRoom.fps} frames a second
      </span>
      {report && <Report report={report} />}
      {fault && <FaultNote fault={writeFault(fault)} />}
    </>
  );
}

function Report({ report }: { report: ClipReport }) {
  const { name, isTaken, message, widthPx, heightPx, fps, durationMs, hasAlpha, missingFonts } = report;
  return (
    <p className={`basis-full border-l-[3px] pl-2 ${isTaken ? "border-lichen" : "border-madder"}`} data-taken={isTaken}>
      {isTaken
        ? `“${name}” was taken in: ${widthPx} × ${heightPx}${fps ? `, ${Number(fps.toFixed(3))} frames a second` : ""}${durationMs ? `, ${(durationMs / 1000).toFixed(2)} s` : ""}, ${hasAlpha ? "with alpha" : "without alpha"}.`
        : `“${name}” was not taken in. ${message}`}
      {missingFonts.length > 0 &&
        ` To change its words there, ${missingFonts.join(", ")} would have to be installed and the program restarted: it does not know ${missingFonts.length === 1 ? "this family" : "these families"}.`}
    </p>
  );
}

/** Moments side by side as one picture, to be sent to somebody who decides. */
function StripButton({ document, name }: Props) {
  const { say, sayFault } = useBench();
  const [isBusy, setBusy] = useState(false);
  const save = async () => {
    setBusy(true);
    try {
      const { ground } = document.sheet;
      saveBlob(
        await askFile("writeMotionStrip", {
          body: { document, moments: 8, widthPx: 480, ground: ground ?? "#101417" },
        }),
        `${name} moments.png`,
      );
      say(`${name} moments.png saved`);
    } catch (error) {
      sayFault(error);
    } finally {
      setBusy(false);
    }
  };
  return (
    <button type="button" className="btn" disabled={isBusy} onClick={() => void save()}>
      {isBusy ? "Drawing …" : "Eight moments as PNG"}
    </button>
  );
}
