// The OpenAPI 3.1 document, folded from the table of operations. Schemas are zod's own JSON Schemas, of the dialect that 3.1 speaks.
import { z } from "zod";
import { ErrorBody, FAULT_CODES } from "../errors";
import type { Form, Operation } from "./operation";
import { OPERATIONS } from "./table";

const BINARY = { type: "string", contentMediaType: "application/octet-stream" };

function schemaOf(type: z.ZodType, io: "input" | "output") {
  const { $schema: _drop, ...schema } = z.toJSONSchema(type, { io, unrepresentable: "any", target: "draft-2020-12" });
  return schema as Record<string, unknown>;
}
type Fields = { properties: Record<string, unknown>; required?: string[] };
const json = (type: z.ZodType, io: "input" | "output") => ({ "application/json": { schema: schemaOf(type, io) } });

/** The document; pure, the same at every call. */
export function describeInterface() {
  const paths: Record<string, Record<string, unknown>> = {};
  for (const [name, op] of Object.entries(OPERATIONS)) (paths[op.path] ??= {})[op.method] = describeOperation(name, op);
  return {
    openapi: "3.1.0",
    info: { title: "Fond Quarry", version: "1", description: `Error codes: ${FAULT_CODES.join(", ")}` },
    servers: [{ url: "/api/v1" }],
    paths,
  };
}

function describeOperation(operationId: string, op: Operation) {
  const body = op.body ? json(op.body, "input") : op.form && describeForm(op.form);
  const content = {
    ...(op.output && json(op.output, "output")),
    ...Object.fromEntries((op.file ?? []).map((type) => [type, { schema: BINARY }])),
  };
  return {
    operationId,
    summary: op.summary,
    description: op.access ? `For the role ${op.access}.` : "For anyone.",
    parameters: [...pathParameters(op), ...queryParameters(op)],
    ...(body && { requestBody: { required: true, content: body } }),
    responses: {
      [String(op.status ?? 200)]: { description: op.summary, content },
      default: { description: "An error with its code", content: json(ErrorBody, "output") },
    },
  };
}

function pathParameters(op: Operation) {
  const { properties } = (op.params ? schemaOf(op.params, "input") : { properties: {} }) as Fields;
  return [...op.path.matchAll(/\{(\w+)\}/g)].map(([, name]) => ({
    name,
    in: "path",
    required: true,
    schema: properties[name!] ?? { type: "string" },
  }));
}

function queryParameters({ query }: Operation) {
  if (!query) return [];
  const { properties, required = [] } = schemaOf(query, "input") as Fields;
  return Object.entries(properties).map(([name, schema]) => ({
    name,
    in: "query",
    required: required.includes(name),
    schema,
    // Lists are written in one value, separated by commas.
    ...(isList(schema) && { style: "form", explode: false }),
  }));
}
const isList = (schema: unknown) => (schema as { type?: string }).type === "array";

function describeForm({ file, isList: isListOfFiles, fields }: Form) {
  const { properties, required = [] } = schemaOf(fields, "input") as Fields;
  const files = isListOfFiles ? { type: "array", items: BINARY } : BINARY;
  const schema = { type: "object", properties: { [file]: files, ...properties }, required: [file, ...required] };
  return { "multipart/form-data": { schema } };
}
