// What can be asked of the server itself: whether it is up, who asks, what it works on, what it takes in.
import { MOTION_FILES } from "../motion";
import { z } from "zod";
import { AccessChange, Role, SignIn } from "../access";
import { ImportId, JobId } from "../ids";
import { Health, ImportReport, Job } from "../jobs";
import { MAX_UPLOAD_BYTES } from "../limits";
import { jsonField, operations } from "./operation";

const SessionRole = z.object({ role: Role.nullable() });
const params = z.object({ id: JobId });

export const SERVER_OPERATIONS = operations({
  getHealth: {
    method: "get",
    path: "/health",
    summary: "Whether the server is up, and how much it holds",
    access: "reader",
    output: Health,
    reads: ["health"],
  },
  getOpenApi: {
    method: "get",
    path: "/openapi.json",
    summary: "This document",
    access: "reader",
    file: ["application/json"],
  },
  getSession: {
    method: "get",
    path: "/session",
    summary: "The role of whoever asks",
    access: null,
    output: SessionRole,
    reads: ["session"],
  },
  signIn: {
    method: "post",
    path: "/session",
    summary: "Sign in with a passcode",
    access: null,
    body: SignIn,
    output: SessionRole,
    changes: ["session"],
  },
  signOut: {
    method: "delete",
    path: "/session",
    summary: "Sign out",
    access: null,
    output: SessionRole,
    changes: ["session"],
  },
  changeAccess: {
    method: "put",
    path: "/access",
    summary: "Change a role's passcode",
    access: "owner",
    body: AccessChange,
    output: SessionRole,
  },
  startImport: {
    method: "post",
    path: "/imports",
    summary: "Take fonts and zips in; they are read by a job",
    access: "editor",
    form: {
      file: "files",
      isList: true,
      maxBytes: MAX_UPLOAD_BYTES,
      tooLarge: "too-large",
      fields: z.object({
        library: z.string().max(200).optional().describe("id of where they belong; own fonts where it is absent"),
        paths: jsonField(z.array(z.string().max(300)).max(5000).optional().catch(undefined)).describe(
          "JSON array: paths of files that came in folders, in the order of the files",
        ),
      }),
    },
    output: z.object({ importId: ImportId }),
    status: 202,
    changes: ["jobs"],
  },
  getImport: {
    method: "get",
    path: "/imports/{id}",
    summary: "One line for every file seen",
    access: "reader",
    params: z.object({ id: ImportId }),
    output: ImportReport,
  },
  listJobs: {
    method: "get",
    path: "/jobs",
    summary: "What runs and what ran",
    access: "reader",
    output: z.object({ jobs: z.array(Job) }),
    reads: ["jobs"],
  },
  getJob: {
    method: "get",
    path: "/jobs/{id}",
    summary: "One job",
    access: "reader",
    params,
    output: Job,
    reads: ["jobs"],
  },
  cancelJob: {
    method: "delete",
    path: "/jobs/{id}",
    summary: "Cancel a job",
    access: "editor",
    params,
    output: Job,
    changes: ["jobs"],
  },
  retryJob: {
    method: "post",
    path: "/jobs/{id}/retry",
    summary: "Start a job again that failed, was cancelled or was set aside",
    access: "editor",
    params,
    output: Job,
    status: 202,
    changes: ["jobs"],
  },
  getJobFile: {
    method: "get",
    path: "/jobs/{id}/file",
    summary: "The file a job made",
    access: "reader",
    file: [...new Set(["application/zip", ...Object.values(MOTION_FILES).map((f) => f.type)])],
  },
});
