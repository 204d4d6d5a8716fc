"use client";
// What was just done, with Undo; or what went wrong. Floats above the foot line and goes by itself.
import { useEffect } from "react";
import { useBench } from "./BenchContext";

const SHOWN_MS = 6000;
const FAULT_SHOWN_MS = 14000;

export function Notice() {
  const { notice, undo, dispatch } = useBench();
  useEffect(() => {
    if (!notice) return;
    const timer = setTimeout(
      () => dispatch({ type: "said", notice: null }),
      notice.isFault ? FAULT_SHOWN_MS : SHOWN_MS,
    );
    return () => clearTimeout(timer);
  }, [notice, dispatch]);
  return (
    <div aria-live="polite" className="pointer-events-none fixed inset-x-0 bottom-10 z-50 flex justify-center">
      {notice && (
        <div
          role={notice.isFault ? "alert" : "status"}
          className={`pointer-events-auto flex max-w-[640px] items-center gap-4 rounded-sm px-4 py-2 shadow-lg ${notice.isFault ? "bg-[#7d1f2d] text-white" : "bg-[#20262b] text-[#fbf9f4]"}`}
        >
          <span>{notice.message}</span>
          {notice.canUndo && (
            <button type="button" className="font-semibold underline underline-offset-2" onClick={undo}>
              Undo <span className="font-mono text-[11px]">U</span>
            </button>
          )}
          <button type="button" aria-label="Close" onClick={() => dispatch({ type: "said", notice: null })}>
            ×
          </button>
        </div>
      )}
    </div>
  );
}
