"use client";
// The frame around every view: rail, brief strip, stage, tray, foot line. Also the keys that work everywhere.
import { usePathname } from "next/navigation";
import { useEffect, useState, type ReactNode } from "react";
import type { Brief } from "@/contracts/brief";
import { BenchProvider, useBench } from "./BenchContext";
import { BriefStrip } from "./BriefStrip";
import { DropAnywhere } from "./DropAnywhere";
import { FootLine } from "./FootLine";
import { Rail, STEPS } from "./Rail";
import { Notice } from "./Notice";
import { ConflictNotice } from "./Unsaved";
import { KeyHelp } from "./KeyHelp";
import { Tray } from "./Tray";
import { bindUndo } from "./useCommands";
import { useKeyListener, useKeys } from "./useKeys";
import { STAYS, useGo } from "./useGo";

type BenchProps = {
  brief: Brief;
  briefs: { briefId: string; name: string }[];
  /** Others can reach the server: people sign in and out. */
  isShared: boolean;
  children: ReactNode;
};

export function Bench({ brief, briefs, isShared, children }: BenchProps) {
  return (
    <BenchProvider brief={brief} key={brief.briefId}>
      <Frame briefs={briefs} isShared={isShared}>
        {children}
      </Frame>
    </BenchProvider>
  );
}

const VIEWS_WITH_TRAY = ["compare", "find", "identify", "letter", "style", "pass"];

function Frame({ briefs, isShared, children }: Omit<BenchProps, "brief">) {
  const { brief, undo, redo, trayOpen, isAway, say } = useBench();
  const go = useGo();
  useStayWhileAway(isAway, say);
  const toStep = (event: KeyboardEvent) => {
    const step = STEPS.find((s) => s.digit === event.key);
    if (step) go(`/b/${brief.briefId}/${step.path}`);
  };
  const [, , , view = "", part = ""] = usePathname().split("/");
  // Two by two has an order of its own beside it.
  const hasTray = VIEWS_WITH_TRAY.includes(view) && part !== "two-by-two";
  const [isHelpOpen, setHelpOpen] = useState(false);
  useKeyListener();
  useKeys(
    "Everywhere",
    [
      {
        keys: STEPS.map((s) => s.digit),
        mod: false,
        legend: "go to a step of the work",
        shown: "1 … 7",
        isLesser: true,
        run: toStep,
      },
      { keys: ["/"], legend: "search", isLesser: true, run: () => go(`/b/${brief.briefId}/find?focus=search`) },
      ...bindUndo({ undo, redo }),
      { keys: ["?"], legend: "all keys", isLesser: true, run: () => setHelpOpen(true) },
    ],
    { isBase: true },
  );
  return (
    <div className="frame grid h-dvh grid-cols-[92px_minmax(0,1fr)] grid-rows-[minmax(0,1fr)]">
      <a
        href="#view"
        className="absolute top-0 left-24 z-50 -translate-y-full bg-slate px-3 py-1.5 text-chalk focus:translate-y-0"
        onClick={(event) => {
          // Not a place to come back to: the focus moves, the address stays.
          event.preventDefault();
          document.getElementById("view")?.focus();
        }}
      >
        Skip to the view
      </a>
      <Rail isShared={isShared} />
      <div className="grid min-h-0 grid-rows-[auto_minmax(0,1fr)_30px]">
        <BriefStrip briefs={briefs} />
        <div className={`grid min-h-0 ${hasTray && trayOpen ? "md:grid-cols-[minmax(0,1fr)_204px]" : "grid-cols-1"}`}>
          <main
            id="view"
            tabIndex={-1}
            className="relative min-h-0 min-w-0 overflow-hidden outline-none"
            aria-label={view}
          >
            {children}
          </main>
          {hasTray && trayOpen && <Tray />}
        </div>
        <FootLine canFold={hasTray} onKeys={() => setHelpOpen(true)} />
      </div>
      <Notice />
      <ConflictNotice />
      <DropAnywhere />
      <KeyHelp isOpen={isHelpOpen} onClose={() => setHelpOpen(false)} />
    </div>
  );
}

/** While the server is away, links would lead to the browser's error page: they wait. */
function useStayWhileAway(isAway: boolean, say: (message: string) => void) {
  useEffect(() => {
    if (!isAway) return;
    const stay = (event: MouseEvent) => {
      if (!(event.target as Element).closest?.("a[href^='/']")) return;
      event.preventDefault();
      event.stopPropagation();
      say(STAYS);
    };
    window.addEventListener("click", stay, true);
    return () => window.removeEventListener("click", stay, true);
  }, [isAway, say]);
}
