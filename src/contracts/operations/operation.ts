// One operation of the HTTP interface, as the table lists it. Routes, checks both ways, the OpenAPI document, the client and what is read
// again after a change follow from it.
import { z } from "zod";
import type { Role } from "../access";
import type { FaultCode } from "../errors";

/** What answers are made of: after a change of one, whatever was read from it is read again. */
export type Topic =
  | "styles"
  | "briefs"
  | "kept"
  | "reviews"
  | "rounds"
  | "decisions"
  | "shares"
  | "letterings"
  | "identifications"
  | "survey"
  | "searches"
  | "themes"
  | "libraries"
  | "basket"
  | "orders"
  | "log"
  | "jobs"
  | "health"
  | "session";

/** A form with one file, or with files that are written to disk as they arrive. */
export type Form = {
  file: string;
  isList?: boolean;
  maxBytes: number;
  tooLarge: FaultCode;
  fields: z.ZodObject;
};

export type Operation = {
  method: "get" | "post" | "put" | "patch" | "delete";
  path: `/${string}`;
  summary: string;
  /** The role that may ask; null: anyone. */
  access: Role | null;
  /** Ids in the path that have a form of their own. What does not have it is not found. */
  params?: z.ZodObject;
  query?: z.ZodObject;
  body?: z.ZodType;
  form?: Form;
  /** Of the JSON that comes back. */
  output?: z.ZodType;
  /** Media types of the file that comes back instead. */
  file?: readonly string[];
  status?: 201 | 202;
  reads?: readonly Topic[];
  changes?: readonly Topic[];
};

type PathNames<P extends string> = P extends `${string}{${infer Name}}${infer Rest}` ? Name | PathNames<Rest> : never;
type Strings<O extends Operation> = { [N in PathNames<O["path"]>]: string };

/** The values of the path: checked where the operation says how. */
export type ParamsOf<O extends Operation> = O["params"] extends z.ZodObject
  ? Omit<Strings<O>, keyof z.output<O["params"]>> & z.output<O["params"]>
  : Strings<O>;
export type QueryOf<O extends Operation> = O["query"] extends z.ZodObject ? z.output<O["query"]> : undefined;
export type BodyOf<O extends Operation> = O["body"] extends z.ZodType ? z.output<O["body"]> : undefined;
export type FieldsOf<O extends Operation> = O["form"] extends Form ? z.output<O["form"]["fields"]> : undefined;
export type OutputOf<O extends Operation> = O["output"] extends z.ZodType ? z.output<O["output"]> : undefined;

/** What a caller sends. A query is given as it is written in the address. */
export type Sent<O extends Operation> = ([PathNames<O["path"]>] extends [never]
  ? { params?: undefined }
  : { params: Strings<O> }) &
  (O["body"] extends z.ZodType ? { body: z.input<O["body"]> } : { body?: undefined }) &
  (O["form"] extends Form ? { form: FormData } : { form?: undefined }) &
  (O["query"] extends z.ZodObject
    ? { query?: { [K in keyof z.input<O["query"]>]?: string | number | boolean | null } | URLSearchParams }
    : { query?: undefined });

/** Keeps what is written literal, so that types follow from it. */
export const operations = <const T extends Record<string, Operation>>(table: T): T => table;

/** A field of a form that holds JSON. */
export const jsonField = <T extends z.ZodType>(of: T) =>
  z.preprocess((value) => {
    if (typeof value !== "string") return value;
    try {
      return JSON.parse(value);
    } catch {
      return value;
    }
  }, of);

/** The path of an operation with its names filled in. @throws RangeError for a name without a value. */
export const pathOf = ({ path }: Pick<Operation, "path">, params: Readonly<Record<string, string>> = {}): string =>
  path.replace(/\{(\w+)\}/g, (_, name: string) => {
    const value = params[name];
    if (value === undefined) throw new RangeError(`${path} lacks ${name}`);
    return encodeURIComponent(value);
  });
