"use client";
// What is connected: how much it holds, when it was synced, what went wrong; sync, pause, disconnect; connect another.
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Library } from "@/contracts/libraries";
import { useBench } from "../bench/BenchContext";
import { call } from "../bench/commands";
import { useHealth } from "../bench/Rail";
import { useCancelJob } from "../bench/FootLine";
import { queryOf, useChange } from "../parts/client";
import { SystemFolders } from "./SystemFolders";
import { countOf, writeWhen } from "../parts/words";

const KIND_OF: Record<Library["kind"], string> = {
  own: "what you imported",
  folder: "folder on this machine, watched",
  opds: "catalogue",
};

export function Connected() {
  const { sayFault, perform } = useBench();
  const change = useChange();
  const health = useHealth();
  const libraries = useQuery({
    ...queryOf("listLibraries", {}, health.data?.styles),
    placeholderData: (before) => before,
    refetchInterval: (q) => (q.state.data?.libraries.some((l) => l.job) ? 700 : 5000),
  });
  const act = (work: Promise<unknown>) => void work.catch(sayFault);
  const of = (l: Library) => ({ params: { id: l.libraryId } });
  const remove = (l: Library) => {
    const { kind, url, name } = l;
    if (kind !== "folder" && kind !== "opds") return;
    const again = { kind, address: url ?? "", name };
    perform(`${name} disconnected`, call("removeLibrary", of(l)), call("addLibrary", { body: again }));
  };
  return (
    <>
      <ul aria-label="Connected libraries">
        {libraries.data?.libraries.map((l) => (
          <Row
            key={l.libraryId}
            library={l}
            onSync={() => act(change("syncLibrary", of(l)))}
            onPause={() =>
              act(change("changeLibrary", { ...of(l), body: { state: l.state === "paused" ? "connected" : "paused" } }))
            }
            onRemove={() => remove(l)}
          />
        ))}
      </ul>
      <ConnectForm />
      <SystemFolders />
    </>
  );
}

type RowProps = { library: Library; onSync: () => void; onPause: () => void; onRemove: () => void };
function Row({ library: l, onSync, onPause, onRemove }: RowProps) {
  const cancel = useCancelJob();
  const [shows, setShows] = useState(false);
  const isReached = l.kind === "opds" || l.kind === "folder";
  return (
    <li className="border-b border-rule py-2.5" data-library={l.libraryId} data-state={l.job ? "syncing" : l.state}>
      <div className="grid grid-cols-[minmax(0,1fr)_92px_92px_100px_272px] items-center gap-x-4">
        <div className="min-w-0">
          <p className="font-semibold">{l.name}</p>
          <p className="truncate text-[12px] text-basalt" title={l.url ?? undefined}>
            {KIND_OF[l.kind]}
            {l.url && ` · ${l.url}`}
          </p>
        </div>
        <span className="num text-right">{countOf(l.families, "family", "families")}</span>
        <span className="num text-right">{countOf(l.styles, "style", "styles")}</span>
        <span className="num text-right">{l.notOwned > 0 ? `${l.notOwned} to buy` : ""}</span>
        <span className="flex items-center justify-end gap-1">
          {isReached && !l.job && (
            <button type="button" className="btn" disabled={l.state === "paused"} onClick={onSync}>
              Sync now
            </button>
          )}
          {l.job && (
            <button type="button" className="btn" onClick={() => cancel(l.job!.jobId)}>
              Stop
            </button>
          )}
          {isReached && (
            <>
              <button type="button" className="btn" onClick={onPause}>
                {l.state === "paused" ? "Resume" : "Pause"}
              </button>
              <button type="button" className="btn" aria-label={`Disconnect ${l.name}`} onClick={onRemove}>
                Disconnect
              </button>
            </>
          )}
        </span>
      </div>
      <p
        className="mt-1 flex flex-wrap items-center gap-x-4 text-[12px] empty:hidden"
        role={l.job ? "status" : undefined}
      >
        {l.job ? (
          <>
            <progress
              max={l.job.total || 1}
              value={l.job.done}
              className="h-1.5 w-40 accent-tide"
              aria-label={`${l.name}: progress`}
            />
            <span className="num">
              {l.job.done} of {l.job.total}
              {l.job.rate ? ` · ${l.job.rate}/s` : ""}
            </span>
          </>
        ) : l.state === "paused" ? (
          <span className="font-semibold">Paused</span>
        ) : (
          isReached && (
            <span className="text-basalt">{l.syncedAt ? `synced ${writeWhen(l.syncedAt)}` : "not synced yet"}</span>
          )
        )}
        {l.fault && !l.job && (
          <span className="text-madder" data-library-fault={l.fault.code}>
            {l.fault.message} ({writeWhen(l.fault.at)}) What was read before is still there.
          </span>
        )}
        {l.refused > 0 && (
          <button type="button" className="text-ochre underline" aria-expanded={shows} onClick={() => setShows(!shows)}>
            {countOf(l.refused, "item", "items")} partly imported
          </button>
        )}
      </p>
      {shows && <Refused libraryId={l.libraryId} />}
    </li>
  );
}

function Refused({ libraryId }: { libraryId: string }) {
  const refused = useQuery(queryOf("listRefused", { params: { id: libraryId } }));
  return (
    <ul className="mt-1 border-l-2 border-rule pl-4">
      {refused.data?.publications.map((p) => (
        <li key={p.publicationId}>
          <span className="font-semibold">{p.title}</span> <span className="text-basalt">{p.detail ?? p.outcome}</span>
        </li>
      ))}
    </ul>
  );
}

function ConnectForm() {
  const change = useChange();
  const { say, sayFault } = useBench();
  const [kind, setKind] = useState<"opds" | "folder">("folder");
  const [address, setAddress] = useState("");
  const [isBusy, setIsBusy] = useState(false);
  const connect = () => {
    setIsBusy(true);
    change("addLibrary", { body: { kind, address } })
      .then(() => {
        say("Connected; it is being read");
        setAddress("");
      })
      .catch(sayFault)
      .finally(() => setIsBusy(false));
  };
  return (
    <form
      className="mt-5 flex flex-wrap items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        connect();
      }}
    >
      <label className="grid gap-1">
        <span className="head">Connect</span>
        <select
          className="border-b border-basalt bg-transparent py-1"
          value={kind}
          onChange={(e) => setKind(e.target.value as "opds" | "folder")}
        >
          <option value="folder">a folder on this machine</option>
          <option value="opds">a catalogue (OPDS 2.0)</option>
        </select>
      </label>
      <label className="grid flex-1 gap-1">
        <span className="sr-only">Address</span>
        <input
          aria-label="Address"
          className="field"
          value={address}
          placeholder={kind === "folder" ? "full path of a folder" : "https://…/opds.json"}
          onChange={(e) => setAddress(e.target.value)}
        />
      </label>
      <button type="submit" className="btn" disabled={!address.trim() || isBusy}>
        {isBusy ? "Asking …" : "Connect"}
      </button>
    </form>
  );
}
