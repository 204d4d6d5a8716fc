"use client";
// Passcodes by role, for the owner; signing out, for everybody.
import Link from "next/link";
import { useState, type FormEvent } from "react";
import { ROLES, type Role } from "@/contracts/access";
import { writeFault } from "../messages";
import { ask, faultOf } from "../parts/client";

const MAY: Record<Role, string> = {
  reader: "Looks, searches, compares and identifies.",
  editor: "Also changes briefs, imports fonts, buys and hands over.",
  owner: "Also connects folders and catalogues, and changes passcodes.",
};

export function AccessView({ role, isLoopbackOnly }: { role: Role | null; isLoopbackOnly: boolean }) {
  return (
    <main className="mx-auto mt-[10vh] w-[560px]">
      <h1 className="text-[22px] font-bold">Access</h1>
      <p className="mt-2 text-basalt">
        {isLoopbackOnly
          ? "This server listens to this machine alone, so nobody is asked for a passcode."
          : `You are signed in as ${role ?? "nobody"}. Changing a passcode signs everybody out.`}
      </p>
      {role === "owner" && !isLoopbackOnly && ROLES.map((r) => <PasscodeField key={r} role={r} />)}
      <p className="mt-8 flex gap-4">
        <Link href="/" className="btn">
          Back to the briefs
        </Link>
        {!isLoopbackOnly && (
          <button
            type="button"
            className="btn"
            onClick={() => void ask("signOut").finally(() => window.location.assign("/sign-in"))}
          >
            Sign out
          </button>
        )}
      </p>
    </main>
  );
}

function PasscodeField({ role }: { role: Role }) {
  const [passcode, setPasscode] = useState("");
  const [says, setSays] = useState("");
  const change = (event: FormEvent) => {
    event.preventDefault();
    ask("changeAccess", { body: { role, passcode } })
      .then(() => window.location.assign("/sign-in"))
      .catch((error: unknown) => setSays(writeFault(faultOf(error)).what));
  };
  return (
    <form onSubmit={change} className="mt-5 border-t border-rule pt-3">
      <label className="block">
        <span className="font-semibold">{role[0]!.toUpperCase() + role.slice(1)}</span>{" "}
        <span className="text-basalt">{MAY[role]}</span>
        <input
          className="field mt-1 w-full"
          type="password"
          autoComplete="new-password"
          placeholder="New passcode, at least 10 characters"
          minLength={10}
          value={passcode}
          onChange={(e) => setPasscode(e.target.value)}
        />
      </label>
      <p className="text-madder" role="alert">
        {says}
      </p>
      <button type="submit" className="btn mt-1" disabled={passcode.length < 10}>
        Change
      </button>
    </form>
  );
}
