// The cutting room over HTTP: what it holds, its project, a start, and clips that were laid into its folder.
import type { IncomingMessage } from "node:http";
import { z } from "zod";
import { gone, json, readJson, type Reply } from "../libraries/reply";
import type { CuttingRoom } from "./cuttingRoom";

/** What the cutting room works on, and a clip that was laid into its folder. */
const Project = z.object({
  fps: z.number().min(1).max(240),
  widthPx: z.number().int().min(16).max(8192),
  heightPx: z.number().int().min(16).max(8192),
});
const Clip = z.object({ name: z.string().max(120), fonts: z.array(z.string().max(120)).max(200).default([]) });

export async function answerCuttingRoom(room: CuttingRoom, request: IncomingMessage, kind: string): Promise<Reply> {
  if (!kind) return json(room.about());
  if (kind === "project" && request.method === "PUT") {
    const project = Project.partial().safeParse(await readJson(request));
    return project.success ? json(room.set(project.data)) : gone("bad-request", 400, project.error.message);
  }
  if (kind === "start" && request.method === "POST") {
    await room.start();
    return json(room.about());
  }
  if (kind !== "clips" || request.method !== "POST") return gone("not-found", 404, "Nothing here.");
  const clip = Clip.safeParse(await readJson(request));
  if (!clip.success) return gone("bad-request", 400, "A clip has a name.");
  return json(await room.take(clip.data.name, clip.data.fonts), 201);
}
