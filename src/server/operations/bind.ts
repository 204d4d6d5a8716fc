// Binds the table of operations to what answers them: access, checks of what comes in and goes out, codes as HTTP statuses. One router
// (Hono) serves all; app/api mounts it.
import { isDeepStrictEqual } from "node:util";
import { Hono, type Context } from "hono";
import { getCookie } from "hono/cookie";
import type { z } from "zod";
import { isAtLeast, SESSION_COOKIE, type Role } from "@/contracts/access";
import { FaultError, refuse, succeed, type Outcome } from "@/contracts/errors";
import type { BodyOf, FieldsOf, Operation, OutputOf, ParamsOf, QueryOf } from "@/contracts/operations/operation";
import { OPERATIONS, type OperationName, type Operations } from "@/contracts/operations/table";
import { isForeign, isOwnHost } from "../access/hosts";
import { roleOf } from "../access/sessions";
import { faultOfDisk } from "../db/diskFaults";
import { getDb, type Db } from "../db/open";
import { bootFault } from "../db/bootFault";
import { FileAnswer, refusal, sendFile } from "./answers";
import { readFileForm, readJson, type SentFile } from "./body";

/** What a handler is given: all of it checked. `answerHeaders` go with its answer. */
type Asked<O extends Operation> = {
  db: Db;
  params: ParamsOf<O>;
  query: QueryOf<O>;
  body: BodyOf<O>;
  fields: FieldsOf<O>;
  /** The file of a form with one. */
  file: SentFile;
  /** Which tab or script asks, as it says itself: what it changed is its own to undo. */
  by: string;
  request: Request;
  signal: AbortSignal;
  answerHeaders: Headers;
};
type Answer<O extends Operation> =
  | (OutputOf<O> extends undefined ? never : OutputOf<O>)
  | (O["file"] extends readonly string[] ? FileAnswer : never);
type Handler<O extends Operation> = (asked: Asked<O>) => Outcome<Answer<O>> | Promise<Outcome<Answer<O>>>;
export type Handlers<N extends OperationName = OperationName> = { [K in N]: Handler<Operations[K]> };

/** A value, or "not-found" when it is null. */
export const found = <T>(value: T | null | undefined): Outcome<T> =>
  value === null || value === undefined ? refuse("not-found") : succeed(value);

type Issues = { path: PropertyKey[]; message: string }[];
const malformed = (issues: Issues) =>
  refuse(
    "bad-request",
    undefined,
    issues.map((i) => `${i.path.map(String).join(".") || "body"}: ${i.message}`),
  );

function check<S extends z.ZodType>(schema: S, value: unknown): Outcome<z.output<S>> {
  const parsed = schema.safeParse(value);
  return parsed.success ? succeed(parsed.data) : malformed(parsed.error.issues);
}

const whoAsks = (said: string | undefined) => (/^[a-z0-9]{8,32}$/.test(said ?? "") ? said! : "script");

type Came = Pick<Asked<Operation>, "params" | "query" | "body" | "fields" | "file">;

/** Reads and checks everything that an operation takes. Forms with lists of files are read by their handler, straight to disk. */
async function readCame(op: Operation, context: Context): Promise<Outcome<Came>> {
  const given = context.req.param() as Record<string, string>;
  const params = op.params?.safeParse(given);
  if (params?.success === false) return refuse("not-found");
  const query = op.query
    ? check(op.query, Object.fromEntries(new URL(context.req.url).searchParams))
    : succeed(undefined);
  if (!query.ok) return query;
  const came = {
    params: { ...given, ...(params?.data as object) },
    query: query.value,
    body: undefined,
    fields: undefined,
  };
  if (op.form && !op.form.isList) {
    const sent = await readFileForm(context.req.raw, op.form.file, op.form.maxBytes, op.form.tooLarge);
    if (!sent.ok) return sent;
    const fields = check(op.form.fields, Object.fromEntries(sent.value.fields));
    return fields.ok ? succeed({ ...came, fields: fields.value, file: sent.value.file } as unknown as Came) : fields;
  }
  if (!op.body) return succeed(came as unknown as Came);
  const sent = await readJson(context.req.raw);
  if (!sent.ok) return sent;
  const body = check(op.body, sent.value);
  return body.ok ? succeed({ ...came, body: body.value } as unknown as Came) : body;
}

/** The first so many answers of an operation are held against the table, and then every so many-th: a long run repeats itself. */
const CHECKED_FIRST = 60;
const CHECKED_EVERY = 8;
const answered = new Map<string, number>();

/** Whether an answer is held against the table: in tests and in development, where it may take its time. */
function checksAnswer(name: string): boolean {
  if (process.env.FOND_QUARRY_CHECK_ANSWERS !== "1") return false;
  const count = answered.get(name) ?? 0;
  answered.set(name, count + 1);
  return count < CHECKED_FIRST || count % CHECKED_EVERY === 0;
}

/** @throws Error when an answer is not what the table says: of another form, or with more in it. */
function checkAnswer(name: string, op: Operation, value: unknown): void {
  if (value instanceof FileAnswer) {
    const type = value.type?.split(";")[0];
    if (!type || op.file?.some((t) => t === type || (t.endsWith("/*") && type.startsWith(t.slice(0, -1))))) return;
    throw new Error(`${name} sent a file of type ${type}`);
  }
  const sent: unknown = JSON.parse(JSON.stringify(value));
  const parsed = op.output!.safeParse(sent);
  if (!parsed.success) throw new Error(`${name} answered with another form: ${parsed.error.message}`);
  if (!isDeepStrictEqual(parsed.data, sent)) throw new Error(`${name} answered with more than the table says`);
}

function refuseByAccess(needed: Role | null, context: Context): Response | null {
  if (needed === null) return null;
  const role = roleOf(getCookie(context, SESSION_COOKIE));
  if (!role) return refusal("passcode-needed");
  return isAtLeast(role, needed) ? null : refusal("not-allowed");
}

async function serve(name: string, op: Operation, handler: Handler<Operation>, context: Context): Promise<Response> {
  const request = context.req.raw;
  const refused = refuseByAccess(op.access, context);
  if (refused) return refused;
  const came = await readCame(op, context);
  if (!came.ok) return refusal(came.code, came.message, came.details);
  const answerHeaders = new Headers();
  const by = whoAsks(context.req.header("x-who"));
  const asked = { ...came.value, db: getDb(), by, request, signal: request.signal, answerHeaders };
  const outcome: Outcome<unknown> = await handler(asked);
  if (!outcome.ok) return refusal(outcome.code, outcome.message, outcome.details);
  if (checksAnswer(name)) checkAnswer(name, op, outcome.value);
  if (outcome.value instanceof FileAnswer) return sendFile(outcome.value);
  return Response.json(outcome.value, { status: op.status ?? 200, headers: answerHeaders });
}

/** The server's own faults: what the store or the disk says is told by its code, everything else is logged and stays here. */
function refuseThrown(error: unknown, context: Context): Response {
  const code = error instanceof FaultError ? error.code : faultOfDisk(error);
  if (!code) console.error(context.req.method, context.req.path, error);
  return refusal(code ?? "internal");
}

/**
 * The router of all operations.
 * @param basePath - where it is mounted.
 */
export function bindOperations(handlers: Handlers, basePath: string): Hono {
  const app = new Hono({ strict: true }).basePath(basePath);
  app.use(async (context, next) => {
    if (!isOwnHost(context.req.raw.headers.get("host"))) return refusal("foreign-host");
    if (isForeign(context.req.raw)) return refusal("foreign-origin");
    const fault = bootFault();
    return fault ? refusal(fault) : next();
  });
  for (const [name, op] of byPath(OPERATIONS)) {
    const handler = handlers[name as OperationName] as unknown as Handler<Operation>;
    app.on(op.method.toUpperCase(), op.path.replace(/\{(\w+)\}/g, ":$1"), (context) =>
      serve(name, op, handler, context),
    );
  }
  for (const path of new Set(Object.values(OPERATIONS).map((o) => o.path)))
    app.all(
      path.replace(/\{(\w+)\}/g, ":$1"),
      (context) => refuseByAccess("reader", context) ?? refusal("method-not-allowed"),
    );
  app.notFound((context) => refuseByAccess("reader", context) ?? refusal("not-found"));
  app.onError(refuseThrown);
  return app;
}

/** Fixed words of a path before names: /libraries/system-folders is not a library. */
const byPath = (table: Record<string, Operation>): [string, Operation][] =>
  Object.entries(table).sort(([, a], [, b]) => Number(a.path.includes("{")) - Number(b.path.includes("{")));
