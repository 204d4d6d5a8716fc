// One way to ask over HTTP, as the OpenAPI document lists them.
import type { z } from "zod";

export type Operation = {
  method: string;
  path: string;
  says: string;
  query?: z.ZodObject;
  body?: z.ZodType;
  form?: Record<string, unknown>;
  gives?: z.ZodType;
  file?: string;
  status?: number;
};

/** A file in a form. */
export const binary = { type: "string", contentMediaType: "application/octet-stream" };
