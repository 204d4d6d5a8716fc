// The plotter that is connected: asked what it holds, given a lettering as a cut file.
import { refuse, succeed, type Outcome } from "@/contracts/errors";
import type { LetteringDocument } from "@/contracts/lettering";
import type { CutFormat, Plot, Plotter } from "@/contracts/plotter";
import type { Db } from "../db/open";
import { askPlotter, plotterUrl, sendCutFile } from "../libraries/plotter";
import { writeLetteringFile } from "./letterings";

export async function findPlotter(signal?: AbortSignal): Promise<Outcome<{ plotter: Plotter | null }>> {
  const url = plotterUrl();
  if (!url) return succeed({ plotter: null });
  const plotter = await askPlotter(url, signal);
  return plotter.ok ? succeed({ plotter: plotter.value }) : plotter;
}

export async function sendToPlotter(
  db: Db,
  { document, format }: { document: LetteringDocument; format: CutFormat },
  signal?: AbortSignal,
): Promise<Outcome<Plot>> {
  const url = plotterUrl();
  if (!url) return refuse("no-plotter");
  const file = await writeLetteringFile(db, { document, format }, signal);
  return file.ok ? sendCutFile(url, format, file.value, signal) : file;
}
