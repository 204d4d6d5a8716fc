// Passcodes and sessions for a server that others can reach. Passcodes are kept as scrypt digests beside the data; a session is a cookie
// that this server signed. Guesses are slowed for everybody together.
import { createHmac, randomBytes, scryptSync, timingSafeEqual } from "node:crypto";
import { existsSync, mkdirSync, readFileSync, renameSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { z } from "zod";
import { Role, ROLES, SESSION_COOKIE } from "@/contracts/access";
import { dataFolder } from "../db/folder";
import { isLoopbackOnly } from "./hosts";

const Kept = z.object({
  /** Signs sessions: another one ends them all. */
  secret: z.string(),
  passcodes: z.partialRecord(Role, z.object({ salt: z.string(), digest: z.string() })),
});
type Kept = z.infer<typeof Kept>;

const DAYS_30_MS = 30 * 24 * 60 * 60 * 1000;
const place = () => join(dataFolder(), "access.json");
const digestOf = (passcode: string, salt: string) => scryptSync(passcode.normalize("NFC"), salt, 32).toString("hex");
const madePasscode = () => randomBytes(10).toString("hex").match(/.{5}/g)!.join("-");

let held: { kept: Kept; mtimeMs: number } | null = null;
function read(): Kept | null {
  if (!existsSync(place())) return null;
  const { mtimeMs } = statSync(place());
  if (held?.mtimeMs !== mtimeMs) held = { kept: Kept.parse(JSON.parse(readFileSync(place(), "utf8"))), mtimeMs };
  return held.kept;
}
function write(kept: Kept) {
  mkdirSync(dataFolder(), { recursive: true });
  writeFileSync(`${place()}.part`, JSON.stringify(kept), { mode: 0o600 });
  renameSync(`${place()}.part`, place());
  held = null;
}
const withPasscode = (passcode: string) => {
  const salt = randomBytes(16).toString("hex");
  return { salt, digest: digestOf(passcode, salt) };
};

/** At the first start that others can reach: one passcode a role. @returns them, to be printed once; null when they were made before. */
export function preparePasscodes(): Record<Role, string> | null {
  if (isLoopbackOnly() || read()) return null;
  const made = Object.fromEntries(ROLES.map((role) => [role, madePasscode()])) as Record<Role, string>;
  const passcodes = Object.fromEntries(ROLES.map((role) => [role, withPasscode(made[role])]));
  write({ secret: randomBytes(32).toString("hex"), passcodes });
  return made;
}

/** Changes one role's passcode. Every session ends. */
export function changePasscode(role: Role, passcode: string) {
  const kept = read() ?? { secret: "", passcodes: {} };
  write({
    secret: randomBytes(32).toString("hex"),
    passcodes: { ...kept.passcodes, [role]: withPasscode(passcode) },
  });
}

const sign = (text: string, secret: string) => createHmac("sha256", secret).update(text).digest("base64url");
function isSame(a: string, b: string): boolean {
  const [left, right] = [Buffer.from(a), Buffer.from(b)];
  return left.length === right.length && timingSafeEqual(left, right);
}

/** Guesses that wait at the same time; more are refused. */
const MAX_WAITING = 8;
const LONGEST_PAUSE_MS = 20_000;
const guesses = { failed: 0, waiting: 0, line: Promise.resolve() as Promise<unknown> };

/** @returns the cookie of a new session; "wrong", or "busy" when too many guess at once. */
export async function signIn(passcode: string): Promise<{ cookie: string; role: Role } | "wrong" | "busy"> {
  if (guesses.waiting >= MAX_WAITING) return "busy";
  guesses.waiting++;
  const turn = guesses.line.then(async () => {
    const pauseMs = guesses.failed ? Math.min(250 * 2 ** guesses.failed, LONGEST_PAUSE_MS) : 0;
    await new Promise((r) => setTimeout(r, pauseMs));
    const role = roleOfPasscode(passcode);
    guesses.failed = role ? 0 : guesses.failed + 1;
    return role;
  });
  guesses.line = turn.catch(() => undefined);
  const role = await turn.finally(() => guesses.waiting--);
  return role ? { cookie: cookieFor(role), role } : "wrong";
}

function roleOfPasscode(passcode: string): Role | null {
  const kept = read();
  if (!kept) return null;
  // Every digest is made, so that the time tells nothing.
  const fitting = ROLES.filter((role) => {
    const known = kept.passcodes[role];
    return known !== undefined && isSame(digestOf(passcode, known.salt), known.digest);
  });
  return fitting[fitting.length - 1] ?? null;
}

function cookieFor(role: Role): string {
  const said = `${role}.${Date.now() + DAYS_30_MS}`;
  const value = `${said}.${sign(said, read()!.secret)}`;
  return `${SESSION_COOKIE}=${value}; Path=/; HttpOnly; SameSite=Strict; Max-Age=${DAYS_30_MS / 1000}`;
}
export const endedCookie = `${SESSION_COOKIE}=; Path=/; HttpOnly; SameSite=Strict; Max-Age=0`;

/** The role of whoever asks; null without a session. @param cookie - the session's value. */
export function roleOf(cookie: string | undefined): Role | null {
  if (isLoopbackOnly()) return "owner";
  const [role, until, signature] = cookie?.split(".") ?? [];
  const kept = read();
  if (!kept || !role || !until || !signature) return null;
  if (!isSame(sign(`${role}.${until}`, kept.secret), signature) || Number(until) < Date.now()) return null;
  return Role.safeParse(role).data ?? null;
}
