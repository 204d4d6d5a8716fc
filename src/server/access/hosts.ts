// Which names this server answers to, and whether a request comes from one of our own pages. Guards against DNS rebinding and pages of
// other sites.
import { hostname, networkInterfaces } from "node:os";

const LOOPBACK = /^(?:localhost|127(?:\.\d{1,3}){3}|::1)$/i;

/** A host without port and brackets, in lower case; null for what is no host. */
function bareHost(host: string | null | undefined): string | null {
  const m = /^(?:\[([0-9a-f:.]+)\]|([^\s:/?#@[\]]+))(?::\d{1,5})?$/i.exec(host ?? "");
  return m ? (m[1] ?? m[2]!).toLowerCase() : null;
}

const ANY = ["0.0.0.0", "::"];
const told = () => bareHost(process.env.HOST) ?? process.env.HOST?.toLowerCase() ?? "127.0.0.1";

/** Whether the server listens to this machine alone: then nobody needs a passcode. */
export const isLoopbackOnly = (): boolean => LOOPBACK.test(told());

/** Hosts that are ours beside loopback: FOND_QUARRY_HOSTS, the one told, and for "any address" this machine's own. */
function ownHosts(): Set<string> {
  const listed = (process.env.FOND_QUARRY_HOSTS ?? "").split(",").flatMap((h) => bareHost(h.trim()) ?? []);
  if (!ANY.includes(told())) return new Set([told(), ...listed]);
  const addresses = Object.values(networkInterfaces()).flatMap((list) =>
    (list ?? []).map((i) => i.address.toLowerCase()),
  );
  const name = hostname().toLowerCase();
  return new Set([...listed, ...addresses, name, `${name}.local`]);
}

/** Whether a Host header is one that this server answers to. */
export function isOwnHost(host: string | null): boolean {
  const bare = bareHost(host);
  return bare !== null && (LOOPBACK.test(bare) || ownHosts().has(bare));
}

/** A request from a page of another site, or through a name that is not ours. */
export function isForeign({ headers }: Pick<Request, "headers">): boolean {
  const host = headers.get("host");
  if (!isOwnHost(host)) return true;
  const origin = headers.get("origin");
  if (origin !== null && hostOf(origin) !== host!.toLowerCase()) return true;
  return headers.get("sec-fetch-site") === "cross-site" || headers.get("sec-fetch-site") === "same-site";
}

function hostOf(origin: string): string | null {
  try {
    return new URL(origin).host;
  } catch {
    return null;
  }
}
