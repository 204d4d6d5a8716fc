"use client";
// One line of facts on the face under focus, the keys of the view, and what runs with count, rate and cancel.
import { useQuery } from "@tanstack/react-query";
import { queryOf, useChange } from "../parts/client";
import { useBench } from "./BenchContext";
import { UnsavedMark } from "./Unsaved";
import { writeKeys } from "./keymap";
import { useHealth } from "./Rail";
import { useKeyList } from "./useKeys";

export const useJobs = (every = 1000) => {
  const health = useHealth();
  const active = Boolean(health.data?.jobsWaiting);
  return useQuery({
    ...queryOf("listJobs", {}),
    refetchInterval: active ? every : 8000,
  });
};

function useJobChange(name: "cancelJob" | "retryJob") {
  const change = useChange();
  const { sayFault } = useBench();
  return (jobId: string) => {
    void change(name, { params: { id: jobId } }).catch(sayFault);
  };
}
export const useCancelJob = () => useJobChange("cancelJob");
/** Begins a failed job again. */
export const useRetryJob = () => useJobChange("retryJob");

export function writeTimeLeft(seconds: number): string {
  if (seconds < 90) return `${seconds} s left`;
  return `${Math.round(seconds / 60)} min left`;
}

/** @param onKeys - opens the list of all keys. */
export function FootLine({ canFold, onKeys }: { canFold: boolean; onKeys: () => void }) {
  const { facts, dispatch, trayOpen } = useBench();
  const jobs = useJobs();
  const cancel = useCancelJob();
  const running = jobs.data?.jobs.find((j) => j.state === "running");
  return (
    <footer className="flex items-center gap-5 overflow-hidden border-t border-rule bg-chalk px-4 text-[12px] whitespace-nowrap">
      <span className="flex min-w-0 flex-1 gap-5 overflow-hidden [mask-image:linear-gradient(to_right,#000_calc(100%-24px),transparent)]">
        {facts.map((fact, i) => (
          <span key={i} className={i ? "text-basalt" : "font-semibold"}>
            {fact}
          </span>
        ))}
      </span>
      <UnsavedMark />
      {running && (
        <span className="flex items-center gap-2" role="status">
          <span className="max-lg:hidden">{running.title}</span>
          <progress
            max={running.total || 1}
            value={running.done}
            className="h-1.5 w-24 accent-tide"
            aria-label={running.title}
          />
          <span className="num">
            {running.done} of {running.total}
            {running.rate ? ` · ${running.rate} a second` : ""}
            {running.secondsLeft !== null && running.rate ? ` · ${writeTimeLeft(running.secondsLeft)}` : ""}
          </span>
          <button type="button" className="btn-quiet underline" onClick={() => cancel(running.jobId)}>
            Cancel
          </button>
        </span>
      )}
      {!running && <ViewKeys />}
      <button type="button" className="btn-quiet shrink-0" onClick={onKeys}>
        <kbd className="key">?</kbd> Keys
      </button>
      {canFold && (
        <button
          type="button"
          className="btn-quiet shrink-0 max-md:hidden"
          onClick={() => dispatch({ type: "tray folded" })}
        >
          {trayOpen ? "Hide kept" : "Show kept"}
        </button>
      )}
    </footer>
  );
}

/** The keys of the view, few of them: all are in the list that "?" opens. */
function ViewKeys() {
  const told = useKeyList().flatMap((p) => p.bindings.filter((b) => b.legend && !b.isLesser));
  const seen = new Set<string>();
  return told
    .filter((b) => !seen.has(writeKeys(b)) && seen.add(writeKeys(b)))
    .map((b) => (
      <span key={writeKeys(b)} className="shrink-0 text-basalt max-lg:hidden">
        <kbd className="key">{writeKeys(b)}</kbd> {b.legend}
      </span>
    ));
}
