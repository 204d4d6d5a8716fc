import { z } from "zod";
import { StyleId } from "@/contracts/ids";
import { Corner, HandCut, PixelBox } from "@/contracts/identify";
import { readFileForm } from "@/app/api/body";
import { answer, broken, readJsonField, route } from "@/app/api/respond";
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
  if (!sent.ok) return answer(sent);
  const { fields, file } = sent.value;
  const ask = Ask.safeParse({
    text: fields.get("text") || null,
    box: readJsonField(fields, "box"),
    corners: readJsonField(fields, "corners"),
    baseline: readJsonField(fields, "baseline"),
    cut: readJsonField(fields, "cut"),
    styleId: fields.get("styleId") || null,
    isSketch: fields.get("sketch") === "true",
    limit: fields.get("limit") ?? 12,
  });
  if (!ask.success) return broken(ask.error);
  const { text: given, box, corners, baseline, ...rest } = ask.data;
  const frame = { ...(box && { box }), ...(corners && { corners }), ...(baseline && { baseline }) };
  return answer(await identify(getDb(), file.name, file.bytes, { text: given, frame, ...rest }, request.signal));
});
