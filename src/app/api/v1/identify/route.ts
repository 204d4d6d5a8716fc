import { NextResponse } from "next/server";
import { z } from "zod";
import { StyleId } from "@/contracts/ids";
import { Corner, HandCut, PixelBox } from "@/contracts/identify";
import { broken, readFileForm, readJsonField, refusal, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { identify, MAX_PICTURE_BYTES } from "@/server/usecases/identify";

export const maxDuration = 60;

const Ask = z.object({
  text: z.string().max(200).nullable(),
  box: PixelBox.nullable(),
  corners: z.array(Corner).length(4).nullable(),
  baseline: z.array(Corner).length(3).nullable(),
  cut: HandCut.nullable(),
  styleId: StyleId.nullable(),
  isSketch: z.boolean(),
  limit: z.coerce.number().int().min(1).max(40),
});

export const POST = route(async (request) => {
  const sent = await readFileForm(request, "image", MAX_PICTURE_BYTES, "picture-too-large");
  if (!sent.ok) return sent.response;
  const { form, file: image } = sent;
  const text = form.get("text");
  const ask = Ask.safeParse({
    text: typeof text === "string" && text ? text : null,
    box: readJsonField(form, "box"),
    corners: readJsonField(form, "corners"),
    baseline: readJsonField(form, "baseline"),
    cut: readJsonField(form, "cut"),
    styleId: form.get("styleId") || null,
    isSketch: form.get("sketch") === "true",
    limit: form.get("limit") ?? 12,
  });
  if (!ask.success) return broken(ask.error);
  const { text: given, box, corners, baseline, ...rest } = ask.data;
  const outcome = await identify(getDb(), image.name || "picture", new Uint8Array(await image.arrayBuffer()), {
    text: given,
    frame: { ...(box && { box }), ...(corners && { corners }), ...(baseline && { baseline }) },
    ...rest,
  });
  return outcome.ok ? NextResponse.json(outcome.value) : refusal(outcome.code, outcome.message, outcome.details);
});
