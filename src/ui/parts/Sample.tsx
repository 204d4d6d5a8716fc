"use client";
// Text set in one face. Characters that the face lacks are hatched boxes with their name; too long a line is set smaller and says so.
import { memo, useLayoutEffect, useMemo, useRef, useState, type CSSProperties } from "react";
import { useCharacterNames } from "./characterNames";
import { lineFor } from "@/core/brief/ownWords";
import { splitRuns } from "@/core/brief/runs";
import { familyOf, useFace, useFaceParts } from "./faceLoader";
import type { SampleProps } from "./sampleOf";
import { fullWidth, isOtherFit, lineFit, type FullWidth } from "./lineFit";
import { SetByLibrary } from "./SetByLibrary";

/** Where the baseline stands below the top of a line box: the ascent that every loaded face is given. */
export const BASELINE_EM = 0.95;

/** CSS of axis values; undefined for a face without axes. */
const writeVariations = (axes?: Record<string, number>) =>
  Object.entries(axes ?? {})
    .map(([tag, value]) => `"${tag}" ${value}`)
    .join(", ") || undefined;

/** The main file of a face that came in parts has these. */
const IS_ASCII = /^[\x20-\x7e]*$/;

export const Sample = memo(function Sample(props: SampleProps) {
  const { text } = lineFor(props.text, props.coverage, props.own);
  return props.owned === false ? <SetByLibrary {...props} text={text} /> : <SetHere {...props} text={text} />;
});

function SetHere(props: SampleProps) {
  const nameCharacter = useCharacterNames();
  const { styleId, coverage, text, sizePx, widthEm, ink, wrap, align, axes, features, byLineWidth, isPassing } = props;
  const variations = writeVariations(axes);
  const state = useFace(styleId, isPassing);
  const partsHere = useFaceParts(styleId, props.parts > 0 && !isPassing && state === "ready" && !IS_ASCII.test(text));
  const runs = useMemo(() => splitRuns(text, coverage), [text, coverage]);
  const box = useRef<HTMLDivElement>(null);
  const line = useRef<HTMLSpanElement>(null);
  const full = useRef<FullWidth>({ of: "", widthPx: 0 });
  const [ownFit, setFit] = useState(1);
  /** What all samples share; a line that is too long even so is set smaller than the others. */
  const shared = byLineWidth ? undefined : props.fit;
  const fit = shared === undefined ? ownFit : Math.min(shared, ownFit);
  useLayoutEffect(() => {
    // A line that is not seen yet need not be measured: measuring makes the browser lay out the page at once.
    if (wrap || state !== "ready" || !box.current || !line.current) return;
    const room = box.current.clientWidth;
    const of = [text, sizePx, partsHere, variations, features].join("\n");
    full.current = fullWidth(full.current, of, line.current.offsetWidth / fit);
    const next = lineFit(full.current.widthPx, room, byLineWidth ?? false);
    if (isOtherFit(next, fit, room)) setFit(next);
  }, [text, sizePx, state, partsHere, wrap, fit, variations, features, byLineWidth]);
  const style: CSSProperties = {
    // A name that no loaded font has would be looked for among the system's fonts: milliseconds each, on a wall of hundreds.
    fontFamily: state === "ready" ? `"${familyOf(styleId)}"` : undefined,
    fontSize: sizePx * fit,
    lineHeight: wrap ? 1.3 : `${sizePx * fit * 1.3}px`,
    // A line set smaller keeps its baseline.
    marginTop: wrap ? 0 : sizePx * BASELINE_EM * (1 - fit),
    display: "inline-block",
    // Swashes and slanted letters reach beyond their advance: a little room is left for them on both sides.
    paddingInline: wrap ? 0 : sizePx * fit * 0.06,
    verticalAlign: "top",
    color: state === "ready" ? ink : "transparent",
    whiteSpace: wrap ? "pre-wrap" : "pre",
    fontVariationSettings: variations,
    fontFeatureSettings: features,
    fontSynthesis: "none",
  };
  const missing = runs.filter((r) => r.missing);
  return (
    <div
      ref={box}
      className="min-w-0 overflow-hidden"
      title={shared !== undefined && ownFit < shared ? "Set smaller than the others so that the line fits" : undefined}
      style={{ textAlign: align }}
      data-face={state}
    >
      {state === "failed" ? (
        <span className="text-madder">This font could not be loaded.</span>
      ) : (
        <span ref={line} style={style} data-sample={styleId}>
          {runs.map((run, i) =>
            run.missing ? (
              <Missing key={i} char={run.text} widthEm={widthEm ?? 0.55} />
            ) : (
              <span key={i}>{run.text}</span>
            ),
          )}
        </span>
      )}
      {missing.length > 0 && state === "ready" && (
        <span className="sr-only">Lacks {missing.map((r) => nameCharacter(r.text.codePointAt(0)!)).join(", ")}.</span>
      )}
    </div>
  );
}

function Missing({ char, widthEm }: { char: string; widthEm: number }) {
  const nameCharacter = useCharacterNames();
  const name = nameCharacter(char.codePointAt(0)!);
  return (
    <span
      className="missing"
      role="img"
      aria-label={`missing: ${name}`}
      title={`This face has no ${char} (${name})`}
      data-missing={char}
      style={{ width: `${Math.min(1.2, Math.max(0.3, widthEm))}em` }}
    />
  );
}
