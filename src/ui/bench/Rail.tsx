"use client";
// The steps in working order, with counts; below the rule what runs beside the work.
import { useQuery } from "@tanstack/react-query";
import Link from "next/link";
import { usePathname } from "next/navigation";
import { useSyncExternalStore } from "react";
import { queryOf } from "../parts/client";
import { useBench } from "./BenchContext";
import { useComparing } from "./comparing";

/** Digits are the places in the working order. */
export const STEPS = [
  { path: "brief", name: "Brief", digit: "1" },
  { path: "find", name: "Find", digit: "2" },
  { path: "identify", name: "Identify", digit: "3" },
  { path: "compare", name: "Compare", digit: "4" },
  { path: "shortlist", name: "Shortlist", digit: "5" },
  { path: "letter", name: "Letter", digit: "6" },
  { path: "hand-over", name: "Hand over", digit: "7" },
] as const;
const BESIDE = [
  { path: "libraries", name: "Libraries" },
  { path: "jobs", name: "Jobs" },
] as const;

export const useHealth = () =>
  useQuery({
    ...queryOf("getHealth", {}),
    refetchInterval: (q) => (q.state.data?.jobsWaiting ? 1200 : 6000),
  });

/** @param isShared - others can reach the server: people sign in and out. */
export function Rail({ isShared }: { isShared: boolean }) {
  const { brief } = useBench();
  const comparing = useComparing();
  const view = usePathname().split("/")[3];
  const health = useHealth();
  const counts: Record<string, number | undefined> = {
    find: health.data?.styles,
    compare: comparing.ids.length || undefined,
    shortlist: brief.kept.length || undefined,
    jobs: health.data?.jobsWaiting || undefined,
    libraries: undefined,
  };
  const link = ({ path, name, digit }: { path: string; name: string; digit?: string }) => {
    const current = view === path || ((view === "style" || view === "pass") && path === "find");
    return (
      <li key={path}>
        <Link
          href={`/b/${brief.briefId}/${path}`}
          prefetch={false}
          aria-current={current ? "page" : undefined}
          title={digit && `Key ${digit}`}
          {...(path === "compare" && comparing.drop)}
          className={`flex h-[34px] items-center justify-between border-l-[3px] pr-3 pl-[11px] font-medium hover:bg-rail-hover ${current ? "border-[#c9653a] bg-rail-hover font-semibold text-white" : "border-transparent text-rail-text"}`}
        >
          {name}
          {counts[path] !== undefined && <span className="font-mono text-[11px] opacity-85">{counts[path]}</span>}
        </Link>
      </li>
    );
  };
  return (
    <nav aria-label="Steps" className="flex flex-col bg-rail pt-3">
      <Link href="/" prefetch={false} className="px-[14px] pb-4 text-[14px] leading-[17px] font-bold text-white">
        Fond
        <br />
        Quarry
      </Link>
      <ul>{STEPS.map(link)}</ul>
      <hr className="mx-[14px] my-3 border-[#48525a]" />
      <ul>{BESIDE.map(link)}</ul>
      <div className="mt-auto" />
      {isShared && (
        <Link href="/access" className="px-[14px] pt-3 text-rail-text hover:text-white">
          Access
        </Link>
      )}
      <ThemeSwitch />
    </nav>
  );
}

function watchTheme(onChange: () => void) {
  const watch = new MutationObserver(onChange);
  watch.observe(document.documentElement, { attributeFilter: ["data-theme"] });
  return () => watch.disconnect();
}

function ThemeSwitch() {
  const isDark = useSyncExternalStore(
    watchTheme,
    () => document.documentElement.dataset.theme === "night",
    () => false,
  );
  const toggle = () => {
    const next = isDark ? "day" : "night";
    document.documentElement.dataset.theme = next;
    localStorage.setItem("theme", next);
  };
  return (
    <button
      type="button"
      aria-pressed={isDark}
      onClick={toggle}
      className="px-[14px] py-3 text-left text-rail-text hover:text-white"
    >
      Dark theme{isDark && ": on"}
    </button>
  );
}
