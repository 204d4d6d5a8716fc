// What flows need to know of libraries: how one is, its faults, what a style's page says.
import { expect } from "@jest/globals";
import { api, standIns } from "./browser";

type Library = {
  libraryId: string;
  name: string;
  state: string;
  styles: number;
  families: number;
  notOwned: number;
  refused: number;
  syncedAt: string | null;
  fault: { code: string; message: string } | null;
  job: { state: string; done: number } | null;
};
const libraries = async () => (await api<{ libraries: Library[] }>("/libraries")).body.libraries;
export const library = async (id: string) => (await libraries()).find((l) => l.libraryId === id)!;
export const NO_FAULTS = { slow: 0, error: false, half: false, expired: false, price: false, down: false };
export const setFaults = (name: string, faults: object) =>
  fetch(`${standIns()}/faults/${name}`, { method: "PUT", body: JSON.stringify(faults) });

/** Waits until no sync of the library runs or waits. */
export async function settled(id: string): Promise<Library> {
  for (let i = 0; i < 300; i++) {
    const l = await library(id);
    if (!l.job) return l;
    await new Promise((r) => setTimeout(r, 100));
  }
  throw new Error(`${id} did not settle`);
}
export async function sync(id: string): Promise<Library> {
  expect((await api(`/libraries/${id}/sync`, { method: "POST" })).status).toBe(202);
  return settled(id);
}
type Detail = {
  styleId: string;
  owned: boolean;
  rights: {
    verdicts: Record<string, { verdict: string; quotes: { text: string; source: string }[] }>;
    evidence: { kind: string; text: string; evidenceId?: string }[];
  };
  coverage: { count: number };
  glyphCount: number;
  changes: { what: string; says: string }[];
  provenance: { path: string; library: string }[];
  formats: string[];
  health: { degree: string };
};
export const detail = async (id: string) => (await api<Detail>(`/styles/${id}`)).body;
type Item = {
  styleId: string;
  family: string;
  style: string;
  verdict: string;
  owned: boolean;
  price: { cents: number } | null;
  traits: Record<string, number>;
};
export const find = async (q: string, more = "") =>
  (await api<{ items: Item[]; total: number }>(`/styles?limit=200&q=${encodeURIComponent(q)}${more}`)).body;
