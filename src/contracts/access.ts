// Who may do what: roles, and the role that a request needs. On loopback everybody is the owner; elsewhere a passcode tells.
import { z } from "zod";

export const ROLES = ["reader", "editor", "owner"] as const;
export const Role = z.enum(ROLES);
export type Role = z.infer<typeof Role>;

export const isAtLeast = (role: Role, needed: Role): boolean => ROLES.indexOf(role) >= ROLES.indexOf(needed);

/** Where somebody signs in, and goes on from. @param path - the page they wanted. */
export const signInFor = (path: string) => `/sign-in?${new URLSearchParams({ to: path })}`;
/** The page to continue to after signing in: one of this server, else the first. @param search - of the sign-in page's address. */
export function pageAfterSignIn(search: string): string {
  const to = new URLSearchParams(search).get("to") ?? "";
  return /^\/(?![/\\])[^\s\\]*$/.test(to) ? to : "/";
}

export const SESSION_COOKIE = "fond-quarry-session";
const Passcode = z.string().min(10).max(100);
export const SignIn = z.object({ passcode: z.string().max(100) });
export const AccessChange = z.object({ role: Role, passcode: Passcode });
