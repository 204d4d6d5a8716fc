"use client";
// A line in a face that is not bought: the library sets it and gives outlines. Asked for a little after typing ends, few at a time;
// where the library asks to wait, it waits.
import { LRUCache } from "lru-cache";
import pLimit from "p-limit";
import { useEffect, useLayoutEffect, useRef, useState } from "react";
import type { SetLineReply } from "@/contracts/libraries";
import { useCharacterNames } from "./characterNames";
import { isMissing } from "@/core/brief/runs";
import { ApiFault, ask } from "./client";
import type { SampleProps } from "./sampleOf";

const SETTLE_MS = 250;
const AT_ONCE = 4;
const LONGEST = 120;

/** Lines that were set lately: walking back through a list asks for none again. */
const lines = new LRUCache<string, SetLineReply>({ max: 400 });
/** Few requests run at a time. */
const inTurn = pLimit(AT_ONCE);

type State = { line: SetLineReply | null; says: string | null };

function useSetLine(styleId: string, text: string): State {
  const key = `${styleId}\n${text}`;
  const [state, setState] = useState<State>({ line: lines.get(key) ?? null, says: null });
  useEffect(() => {
    let isGone = false;
    let timer: ReturnType<typeof setTimeout>;
    const known = lines.get(key);
    const askForLine = () => {
      void inTurn(() => ask("setLine", { params: { id: styleId }, query: { text } }))
        .then((line) => {
          lines.set(key, line);
          if (!isGone) setState({ line, says: null });
        })
        .catch((error: unknown) => {
          if (isGone) return;
          const fault = error instanceof ApiFault ? error.fault : null;
          const wait = (fault?.details as { waitSeconds?: number } | undefined)?.waitSeconds;
          setState((before) => ({ ...before, says: fault?.message ?? "The library does not answer." }));
          if (wait) timer = setTimeout(askForLine, Math.min(wait, 60) * 1000);
        });
    };
    timer = setTimeout(() => (known ? setState({ line: known, says: null }) : askForLine()), known ? 0 : SETTLE_MS);
    return () => {
      isGone = true;
      clearTimeout(timer);
    };
  }, [key, styleId, text]);
  return state;
}

export function SetByLibrary({ styleId, coverage, text, sizePx, ink, align, wrap, fit: sharedFit }: SampleProps) {
  const nameCharacter = useCharacterNames();
  const shown = [...text.replace(/\s+/g, " ").trim()].slice(0, LONGEST).join("");
  const { line, says } = useSetLine(styleId, shown || " ");
  const box = useRef<HTMLDivElement>(null);
  const [ownFit, setFit] = useState(1);
  const fit = sharedFit ?? ownFit;
  const widthPx = line ? (line.widthFu / line.unitsPerEm) * sizePx : 0;
  useLayoutEffect(() => {
    const room = box.current?.clientWidth ?? 0;
    const next = widthPx > room && room > 0 ? Math.max(0.1, room / widthPx) : 1;
    if (sharedFit !== undefined) return;
    if (Math.abs(next - fit) > 0.004) setFit(next);
  }, [widthPx, fit, sharedFit]);
  const missing = [...new Set(shown)].filter((c) => isMissing(c, coverage));
  const em = line?.unitsPerEm ?? 1000;
  const size = sizePx * fit;
  return (
    <div
      ref={box}
      className="min-w-0 overflow-hidden"
      style={{ textAlign: align, minHeight: sizePx * 1.3 }}
      data-face={line ? "ready" : "loading"}
      data-set-by-library
    >
      {line && (
        <svg
          role="img"
          aria-label={shown}
          data-sample={styleId}
          width={(line.widthFu / em) * size}
          height={size * 1.3}
          viewBox={`0 ${-0.95 * em} ${Math.max(1, line.widthFu)} ${1.3 * em}`}
          style={{
            display: "inline-block",
            overflow: "visible",
            verticalAlign: "top",
            marginTop: wrap ? 0 : sizePx * 0.95 * (1 - fit),
            color: ink,
          }}
        >
          <path d={line.path} fill="currentColor" />
        </svg>
      )}
      {!line && says && <span className="text-basalt">{says}</span>}
      {missing.length > 0 && (
        <span className="sr-only">Lacks {missing.map((c) => nameCharacter(c.codePointAt(0)!)).join(", ")}.</span>
      )}
    </div>
  );
}
