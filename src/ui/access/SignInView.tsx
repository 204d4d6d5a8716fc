"use client";
// Asks for the passcode, where others can reach the server.
import { useState, type FormEvent } from "react";
import { pageAfterSignIn } from "@/contracts/access";
import { writeFault } from "../messages";
import { ask, faultOf } from "../parts/client";

export function SignInView() {
  const [passcode, setPasscode] = useState("");
  const [fault, setFault] = useState("");
  const [isBusy, setBusy] = useState(false);
  const signIn = (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    setFault("");
    ask("signIn", { body: { passcode: passcode.trim() } })
      .then(() => window.location.assign(pageAfterSignIn(window.location.search)))
      .catch((error: unknown) => {
        const { what, now } = writeFault(faultOf(error));
        setFault(`${what} ${now}`.trim());
        setBusy(false);
      });
  };
  return (
    <main className="mx-auto mt-[18vh] w-[360px]">
      <h1 className="text-[22px] font-bold">Fond Quarry</h1>
      <form onSubmit={signIn} className="mt-5">
        <label className="block">
          <span className="head">Passcode</span>
          <input
            className="field mt-1 w-full"
            type="password"
            autoComplete="current-password"
            autoFocus
            value={passcode}
            onChange={(e) => setPasscode(e.target.value)}
          />
        </label>
        <p className="mt-2 min-h-5 text-madder" role="alert">
          {fault}
        </p>
        <button type="submit" className="btn btn-act mt-2" disabled={isBusy || !passcode.trim()}>
          {isBusy ? "Checking …" : "Sign in"}
        </button>
      </form>
      <p className="mt-6 text-basalt">The passcodes were printed where the server was first started.</p>
    </main>
  );
}
