"use client";
// Identify: a picture of lettering, one line of it framed, read and corrected; the faces that match, laid over it.
import Link from "next/link";
import { useCallback, useEffect, useReducer, useRef } from "react";
import type { Corner, Identification } from "@/contracts/identify";
import { useBench } from "../bench/BenchContext";
import { ApiFault, callApi } from "../parts/api";
import { writeFault } from "../messages";
import { Answer } from "./Answer";
import { Chooser, DropArea } from "./DropArea";
import { Framing } from "./Framing";
import { cornersOf, identifyReducer, NOTHING, type Frame, type Picture } from "./state";
import { Strip } from "./Strip";

export function IdentifyView() {
  const [state, dispatch] = useReducer(identifyReducer, NOTHING);
  const { brief, say, dispatch: toBench } = useBench();
  const asked = useRef<AbortController | null>(null);
  const { picture, frame, corners, text, isTyped } = state;

  const ask = useCallback(
    async (of: Picture, within: Frame | null, words: string, pulled: Corner[] | null = null) => {
      asked.current?.abort();
      const stop = new AbortController();
      asked.current = stop;
      dispatch({ type: "asked" });
      const form = new FormData();
      form.append("image", of.file);
      form.append("limit", "12");
      if (words.trim()) form.append("text", words.trim());
      if (pulled) form.append("corners", JSON.stringify(pulled));
      else if (within) form.append("box", JSON.stringify(within));
      try {
        const result = await callApi<Identification>("/identify", { method: "POST", body: form, signal: stop.signal });
        if (asked.current === stop) dispatch({ type: "answered", result });
      } catch (error) {
        if ((error as Error).name === "AbortError" || asked.current !== stop) return;
        dispatch({
          type: "refused",
          fault: writeFault(
            error instanceof ApiFault ? error.fault : { code: "internal", message: String((error as Error).message) },
          ),
        });
      }
    },
    [dispatch],
  );

  const choose = useCallback(
    (file: File | undefined) => {
      if (!file) return;
      const url = URL.createObjectURL(file);
      const image = new Image();
      const take = (widthPx: number, heightPx: number) => {
        const chosen = { file, url, widthPx, heightPx };
        dispatch({ type: "picture chosen", picture: chosen });
        void ask(chosen, null, "");
      };
      // What the browser cannot show may still be readable on the server, or will be refused there with its reason.
      image.onload = () => take(image.naturalWidth, image.naturalHeight);
      image.onerror = () => take(0, 0);
      image.src = url;
    },
    [ask],
  );

  const chooseFirst = useCallback((files: File[]) => choose(files[0]), [choose]);
  useEffect(() => {
    const onPaste = (event: ClipboardEvent) => {
      const file = [...(event.clipboardData?.files ?? [])].find((f) => f.type.startsWith("image/"));
      if (file) choose(file);
      else if (!(event.target as HTMLElement).closest("input, textarea")) say("The clipboard holds no picture.");
    };
    window.addEventListener("paste", onPaste);
    return () => window.removeEventListener("paste", onPaste);
  }, [choose, say]);
  useEffect(() => () => void (picture && URL.revokeObjectURL(picture.url)), [picture]);

  const match = state.result?.matches[state.focus];
  useEffect(() => {
    if (!match) return toBench({ type: "facts", facts: [], keys: [] });
    const letters = [...match.letters].sort((a, b) => b.agreement - a.agreement);
    toBench({
      type: "facts",
      facts: [
        `${match.family} ${match.style}`,
        `agreement ${match.score.toFixed(2)}`,
        `speaks most for it: ${letters[0]?.char ?? ""}`,
        `against: ${letters[letters.length - 1]?.char ?? ""}`,
      ],
      keys: [
        { key: "↑ ↓", does: "match" },
        { key: "Space", does: "keep" },
        { key: "O", does: "lay over" },
      ],
    });
  }, [match, toBench]);

  if (!picture)
    return (
      <DropArea onFiles={chooseFirst}>
        <h1 className="text-[20px] font-bold">Which face is this?</h1>
        <p className="mt-1 text-basalt">
          Drop a picture of lettering here, paste one, or choose a file. PNG, JPEG, WebP, GIF, TIFF, AVIF.
        </p>
        <div className="mt-4">
          <Chooser onFiles={chooseFirst} label="Choose a picture" what="Picture" accept="image/*" act />
        </div>
        <p className="mt-6 max-w-[560px] text-basalt">
          One line of text works best. Every style of your libraries is compared letter by letter; you can correct what
          was read.
        </p>
        <p className="mt-3 max-w-[560px] text-basalt">
          No usable picture?{" "}
          <Link href={`/b/${brief.briefId}/identify/questions`} className="font-semibold text-tide underline">
            Answer questions on its letters
          </Link>
          . The design in a PDF, a web page or a book?{" "}
          <Link href={`/b/${brief.briefId}/identify/documents`} className="font-semibold text-tide underline">
            List the fonts of a document
          </Link>
          .
        </p>
      </DropArea>
    );
  return (
    <div className="grid h-full grid-cols-[minmax(0,1.36fr)_minmax(0,1fr)]">
      <DropArea onFiles={chooseFirst} className="flex min-h-0 flex-col gap-3 overflow-y-auto px-4 py-3">
        <Framing
          picture={picture}
          frame={frame}
          corners={corners}
          areas={state.areas}
          onFrame={(f) => dispatch({ type: "framed", frame: f })}
          onCorners={(c) => dispatch({ type: "corners", corners: c })}
          onArea={(area) => {
            dispatch({ type: "framed", frame: area });
            dispatch({ type: "typed", text: "" });
            void ask(picture, area, "");
          }}
        />
        <div className="flex flex-wrap items-center gap-x-4 gap-y-2 text-[12px] text-basalt">
          <b className="min-w-16 max-w-[220px] truncate text-slate" title={picture.file.name}>
            {picture.file.name}
          </b>
          {picture.widthPx > 0 && (
            <span className="num shrink-0">
              {picture.widthPx} × {picture.heightPx} px
            </span>
          )}
          {state.result && Math.abs(state.result.strip.slopeDeg) > 0.05 && (
            <span className="shrink-0">straightened {Math.abs(state.result.strip.slopeDeg).toFixed(1)}°</span>
          )}
          <span className="ml-auto flex shrink-0 gap-2">
            <button
              type="button"
              className="btn"
              aria-pressed={corners !== null}
              onClick={() => dispatch({ type: "corners", corners: corners ? null : cornersOf(picture, frame) })}
            >
              Four corners
            </button>
            <Chooser onFiles={chooseFirst} label="Another picture" what="Picture" accept="image/*" />
            <button
              type="button"
              className="btn btn-act"
              disabled={state.busy}
              onClick={() => void ask(picture, frame, isTyped ? text : "", corners)}
            >
              {state.busy ? "Comparing …" : frame || corners ? "Identify what is framed" : "Identify"}
            </button>
          </span>
        </div>
        {state.fault && (
          <div role="alert" className="border-l-2 border-madder pl-3">
            <p className="font-semibold text-madder">{state.fault.what}</p>
            <p>{state.fault.now}</p>
          </div>
        )}
        <form
          className="flex items-baseline gap-3"
          onSubmit={(e) => {
            e.preventDefault();
            void ask(picture, frame, text, corners);
          }}
        >
          <label className="shrink-0 font-semibold" htmlFor="reading">
            Read as
          </label>
          <input
            id="reading"
            className="field text-[17px]"
            maxLength={200}
            placeholder="type what stands there"
            value={text}
            onChange={(e) => dispatch({ type: "typed", text: e.target.value })}
          />
          <button type="submit" className="btn" disabled={state.busy || !text.trim()}>
            Compare again
          </button>
        </form>
        {state.result && match && (
          <Strip result={state.result} match={match} lay={state.lay} onLay={(lay) => dispatch({ type: "laid", lay })} />
        )}
      </DropArea>
      <Answer state={state} dispatch={dispatch} />
    </div>
  );
}
