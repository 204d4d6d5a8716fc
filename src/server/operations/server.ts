// What answers questions about the server itself: whether it is up, who asks, what it works on, what it takes in.
import { createReadStream, existsSync, statSync } from "node:fs";
import { Readable } from "node:stream";
import { SESSION_COOKIE } from "@/contracts/access";
import { refuse, succeed, type Outcome } from "@/contracts/errors";
import { LibraryId, type ImportId } from "@/contracts/ids";
import { MOTION_FILES } from "@/contracts/motion";
import { describeInterface } from "@/contracts/operations/openapi";
import { SERVER_OPERATIONS } from "@/contracts/operations/server";
import { changePasscode, endedCookie, roleOf, signIn } from "../access/sessions";
import type { Db } from "../db/open";
import { cancelJob, describeJob, retryJob } from "../queue/queue";
import { findBrief } from "../queries/briefs";
import { findJob, listJobs, listJobsIn, type JobRow } from "../queries/jobs";
import { findLibrary } from "../queries/libraries";
import type { MotionPayload } from "../queue/payloads";
import { countStyles } from "../queries/styles";
import { getImport, openUpload, startImport } from "../usecases/imports";
import { FileAnswer } from "./answers";
import { found, type Handlers } from "./bind";
import { receiveFiles } from "./body";
import { VERSION } from "./version";

export const serverHandlers: Handlers<keyof typeof SERVER_OPERATIONS> = {
  getHealth: ({ db }) => {
    const jobsWaiting = listJobsIn(db, "waiting", "running").length;
    return succeed({ status: "ok" as const, version: VERSION, ...countStyles(db), jobsWaiting });
  },
  getOpenApi: () => succeed(new FileAnswer(JSON.stringify(describeInterface()), "application/json")),
  getSession: ({ request }) => {
    const cookies = request.headers.get("cookie") ?? "";
    const own = cookies.split(/;\s*/).find((c) => c.startsWith(`${SESSION_COOKIE}=`));
    return succeed({ role: roleOf(own?.slice(SESSION_COOKIE.length + 1)) });
  },
  signIn: async ({ body, answerHeaders }) => {
    const signed = await signIn(body.passcode);
    if (signed === "busy") return refuse("busy");
    if (signed === "wrong") return refuse("passcode-wrong");
    answerHeaders.set("set-cookie", signed.cookie);
    return succeed({ role: signed.role });
  },
  signOut: ({ answerHeaders }) => {
    answerHeaders.set("set-cookie", endedCookie);
    return succeed({ role: null });
  },
  changeAccess: ({ body }) => {
    changePasscode(body.role, body.passcode);
    return succeed({ role: body.role });
  },
  startImport: ({ db, request }) => takeFiles(db, request),
  getImport: ({ db, params }) => found(getImport(db, params.id)),
  listJobs: ({ db }) => succeed({ jobs: listJobs(db, 50).map(describeJob) }),
  getJob: ({ db, params }) => jobOf(db, params.id),
  cancelJob: ({ db, params }) => {
    if (findJob(db, params.id)) cancelJob(params.id);
    return jobOf(db, params.id);
  },
  retryJob: ({ db, params }) => (retryJob(params.id) ? jobOf(db, params.id) : refuse("not-found")),
  getJobFile: ({ db, params }) => {
    const job = findJob(db, params.id);
    if (!job?.filePath || job.state !== "done" || !existsSync(job.filePath)) return refuse("job-gone");
    const { type, extension } = fileOf(job);
    const name = `${(job.briefId && findBrief(db, job.briefId)?.name) || (job.kind === "motion" ? "Title" : "Hand over")}.${extension}`;
    const stream = Readable.toWeb(createReadStream(job.filePath)) as ReadableStream<Uint8Array>;
    const headers = { "content-length": String(statSync(job.filePath).size) };
    return succeed(new FileAnswer(stream, type, { name, headers }));
  },
};

/** Motions are written as what was asked for; all other jobs make archives. */
function fileOf({ kind, payload }: JobRow): { type: string; extension: string } {
  if (kind !== "motion") return { type: "application/zip", extension: "zip" };
  return MOTION_FILES[(JSON.parse(payload) as MotionPayload).format];
}

function jobOf(db: Db, id: string) {
  const job = findJob(db, id);
  return found(job && describeJob(job));
}

/** A path serves as a name alone, yet it stays inside its folder. */
const nameOf = (name: string, path: string | undefined) =>
  (path ?? name)
    .split(/[\\/]/)
    .filter((part) => part && part !== "." && part !== "..")
    .join("/") || "unnamed";

/** Files are written to disk as they arrive; nothing of them stays when the form is refused. */
async function takeFiles(db: Db, request: Request): Promise<Outcome<{ importId: ImportId }>> {
  const upload = openUpload();
  const drop = <T>(refused: T): T => {
    upload.drop();
    return refused;
  };
  const { file, maxBytes, fields } = SERVER_OPERATIONS.startImport.form;
  const sent = await receiveFiles(request, file, maxBytes, upload.placeOf).catch((error: unknown) => {
    throw drop(error);
  });
  if (!sent.ok) return drop(sent);
  const given = fields.safeParse(Object.fromEntries(sent.value.fields));
  if (!given.success) return drop(refuse("bad-request"));
  const { library: wanted, paths } = given.data;
  const library = LibraryId.safeParse(wanted);
  if (wanted && !(library.success && findLibrary(db, library.data)))
    return drop(refuse("not-found", `${wanted}: There is no such library.`));
  const named = sent.value.names.map((name, i) => nameOf(name, paths?.[i]));
  return succeed({ importId: startImport(db, upload, named, library.data) });
}
