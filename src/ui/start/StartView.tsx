"use client";
// What somebody sees who has no brief yet.
import { useState } from "react";
import { writeFault } from "../messages";
import { ask, faultOf } from "../parts/client";
import { DeletedNote } from "./DeletedNote";

export function StartView() {
  const [fault, setFault] = useState("");
  const begin = () =>
    ask("createBrief", { body: { name: "First brief" } })
      .then((brief) => window.location.assign(`/b/${brief.briefId}/brief`))
      .catch((error: unknown) => setFault(writeFault(faultOf(error)).what));
  return (
    <main className="mx-auto mt-[18vh] w-[460px]">
      <h1 className="text-[22px] font-bold">Start with a brief</h1>
      <p className="mt-2 text-basalt">
        A brief holds one project: its words, what it is for, its size and colours. Every face is shown in those words.
      </p>
      <button type="button" className="btn btn-act mt-4" onClick={() => void begin()}>
        New brief
      </button>
      <p className="mt-4" role="status">
        <DeletedNote />
      </p>
      <p className="mt-2 text-madder" role="alert">
        {fault}
      </p>
    </main>
  );
}
