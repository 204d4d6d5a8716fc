// Motions written by the server, asked for over HTTP.
import { expect } from "@jest/globals";
import type { LetteringDocument } from "@/contracts/lettering";
import type { Motion } from "@/contracts/motion";
import { api, fetchAgain, url, waitUntil } from "./browser";

export type Asked = {
  document: LetteringDocument;
  motion: Motion;
  format: string;
  widthPx: number;
  ground?: string | null;
  briefId?: string;
};
export async function startJob(asked: Asked): Promise<string> {
  const { status, body } = await api<{ jobId: string }>("/motion", { method: "POST", json: asked });
  expect(status).toBe(202);
  return body.jobId;
}
/** A motion written by the server, when it is done. */
export async function makeFile(asked: Asked): Promise<Uint8Array> {
  const jobId = await startJob(asked);
  const state = async () => (await api<{ state: string; message: string }>(`/jobs/${jobId}`)).body;
  await waitUntil(async () => !["waiting", "running"].includes((await state()).state), 120_000);
  expect(await state()).toMatchObject({ state: "done" });
  return new Uint8Array(await (await fetchAgain(`${url()}/api/v1/jobs/${jobId}/file`)).arrayBuffer());
}
