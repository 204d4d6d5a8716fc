// The OpenAPI 3.1 document, made from the schemas that the routes check with. A route that is not here is not promised.
import { AccessChange, Role, SignIn } from "./access";
import { KeptPost, StepBack } from "./brief";
import { HandoverPlan } from "./jobs";
import { IDENTIFY_OPERATIONS } from "./openapiIdentify";
import { binary, type Operation } from "./operation";
import { z } from "zod";
import { Brief, BriefCreate, BriefPatch, Check, Kept, KeptPut } from "./brief";
import { ErrorBody, FAULT_CODES } from "./errors";
import { ImportId, JobId, LibraryId } from "./ids";
import { HandoverOptions, Health, ImportReport, Job } from "./jobs";
import {
  Basket,
  BasketPut,
  EvidenceAdd,
  EvidencePatch,
  Library,
  LibraryAdd,
  LibraryPatch,
  Log,
  LogQuery,
  Order,
  OrderPlace,
  OrderStarted,
  PublicationLine,
  SetLineReply,
  SettingQuery,
  SystemFolder,
} from "./libraries";
import { Anatomy } from "./anatomy";
import { Mark, MarkPut, Pass, PassBegin, PassPatch, PassSummary, SavedSearch, SavedSearchAdd, TagPut } from "./passes";
import {
  AlikeList,
  GlyphList,
  GlyphQuery,
  ShownItem,
  StyleDetail,
  StyleList,
  StyleQuery,
  SuggestQuery,
  Suggestions,
} from "./styles";

const SessionRole = z.object({ role: Role.nullable() });

export const OPERATIONS: Operation[] = [
  ...IDENTIFY_OPERATIONS,
  { method: "get", path: "/health", says: "Whether the server is up, and how much it holds", gives: Health },
  {
    method: "post",
    path: "/imports",
    says: "Takes fonts and zips in; they are read by a job",
    status: 202,
    form: { files: { type: "array", items: binary }, library: { type: "string" } },
    gives: z.object({ importId: ImportId }),
  },
  { method: "get", path: "/imports/{id}", says: "One line for every file seen", gives: ImportReport },
  {
    method: "get",
    path: "/styles",
    says: "Finds styles; the cursor is the number of the next row",
    query: StyleQuery,
    gives: StyleList,
  },
  {
    method: "get",
    path: "/styles/{id}",
    says: "All that is known of a style",
    query: StyleQuery.pick({ briefId: true }),
    gives: StyleDetail,
  },
  {
    method: "get",
    path: "/styles/{id}/glyphs",
    says: "Glyphs by block, character, name or code point",
    query: GlyphQuery,
    gives: GlyphList,
  },
  {
    method: "get",
    path: "/styles/{id}/alike",
    says: "The nearest styles with distance and what differs; filters and comparing words as for /styles",
    query: StyleQuery,
    gives: AlikeList,
  },
  { method: "get", path: "/styles/{id}/anatomy", says: "Parts of letters on the real outlines", gives: Anatomy },
  {
    method: "put",
    path: "/styles/{id}/tags",
    says: "Says a word of the style's family, or denies one that was measured; holds: null takes back",
    body: TagPut,
    gives: z.object({ tags: z.array(z.object({ tag: z.string(), holds: z.boolean() })) }),
  },
  {
    method: "get",
    path: "/suggestions",
    says: "What could follow in the find field",
    query: SuggestQuery,
    gives: Suggestions,
  },
  { method: "get", path: "/searches", says: "Saved searches", gives: z.object({ searches: z.array(SavedSearch) }) },
  { method: "post", path: "/searches", says: "Saves a search", body: SavedSearchAdd, gives: SavedSearch, status: 201 },
  { method: "delete", path: "/searches/{id}", says: "Forgets a search", gives: z.object({ searchId: z.string() }) },
  {
    method: "get",
    path: "/briefs/{id}/passes",
    says: "Passes through many faces, the newest first",
    gives: z.object({ passes: z.array(PassSummary) }),
  },
  {
    method: "post",
    path: "/briefs/{id}/passes",
    says: "Begins a pass with what a question finds",
    body: PassBegin,
    gives: Pass,
    status: 201,
  },
  { method: "get", path: "/briefs/{id}/passes/{passId}", says: "A pass with all of its marks", gives: Pass },
  {
    method: "patch",
    path: "/briefs/{id}/passes/{passId}",
    says: "Ends a pass, or takes it up again",
    body: PassPatch,
    gives: Pass,
  },
  {
    method: "delete",
    path: "/briefs/{id}/passes/{passId}",
    says: "Forgets a pass; what was kept and set aside stays",
    gives: z.object({ passId: z.string() }),
  },
  {
    method: "get",
    path: "/briefs/{id}/passes/{passId}/items",
    says: "Some faces of a pass, as the brief sees them",
    gives: z.object({ items: z.array(ShownItem) }),
  },
  {
    method: "put",
    path: "/briefs/{id}/passes/{passId}/marks/{place}",
    says: "Keeps, sets aside or leaves the face at a place",
    body: MarkPut,
    gives: Mark,
  },
  {
    method: "delete",
    path: "/briefs/{id}/passes/{passId}/marks/{place}",
    says: "Undoes a mark: the brief is as it was before it",
    gives: Mark,
  },
  { method: "get", path: "/briefs/{id}/picture", says: "The picture of a brief", file: "image/jpeg" },
  {
    method: "put",
    path: "/briefs/{id}/picture",
    says: "Gives a brief a picture",
    form: { image: binary },
    gives: z.object({ picture: z.string() }),
  },
  {
    method: "delete",
    path: "/briefs/{id}/picture",
    says: "Removes the picture",
    gives: z.object({ briefId: z.string() }),
  },
  { method: "get", path: "/styles/{id}/file", says: "The font file as it came", file: "font/woff2" },
  { method: "get", path: "/briefs", says: "All briefs", gives: z.object({ briefs: z.array(Brief) }) },
  {
    method: "post",
    path: "/briefs",
    says: "Makes a brief, or a copy of one",
    body: BriefCreate,
    gives: Brief,
    status: 201,
  },
  { method: "get", path: "/briefs/{id}", says: "One brief", gives: Brief },
  {
    method: "patch",
    path: "/briefs/{id}",
    says: "Changes what is given; deleted: false brings a deleted brief back",
    body: BriefPatch,
    gives: Brief,
  },
  {
    method: "delete",
    path: "/briefs/{id}",
    says: "Deletes a brief (it can be brought back)",
    gives: z.object({ briefId: z.string(), deleted: z.boolean() }),
  },
  {
    method: "put",
    path: "/briefs/{id}/kept/{keptId}",
    says: "Keeps a style as it comes (by its style id), or changes its role, note, place",
    body: KeptPut,
    gives: Kept,
  },
  {
    method: "patch",
    path: "/briefs/{id}/kept/{keptId}",
    says: "Changes role, note, place of a kept face",
    body: KeptPut,
    gives: Kept,
  },
  {
    method: "post",
    path: "/briefs/{id}/kept",
    says: "Keeps a style at a place on its axes, with features: one style may be kept at several",
    body: KeptPost,
    gives: Kept,
    status: 201,
  },
  {
    method: "get",
    path: "/briefs/{id}/events",
    says: "What happens to the brief, as server-sent events",
    file: "text/event-stream",
  },
  {
    method: "get",
    path: "/briefs/{id}/kept",
    says: "What is kept for a brief, with each face as the brief sees it",
    gives: z.object({ kept: z.array(Kept), items: z.array(z.unknown()), ranges: z.unknown() }),
  },
  {
    method: "get",
    path: "/briefs/{id}/identifications/{identificationId}/image",
    says: "The picture of a kept identification",
    file: "image/*",
  },
  { method: "get", path: "/openapi.json", says: "This document", file: "application/json" },
  { method: "post", path: "/briefs/{id}/undo", says: "Takes the last step of the brief back", gives: StepBack },
  { method: "post", path: "/briefs/{id}/redo", says: "Does the step that was undone again", gives: StepBack },
  { method: "get", path: "/briefs/{id}/handover", says: "What an archive would hold", gives: HandoverPlan },
  {
    method: "post",
    path: "/jobs/{id}/retry",
    says: "Begins a failed job again",
    gives: Job,
    status: 202,
  },
  { method: "get", path: "/session", says: "The role of whoever asks", gives: SessionRole },
  { method: "post", path: "/session", says: "Signs in with a passcode", body: SignIn, gives: SessionRole },
  { method: "delete", path: "/session", says: "Signs out", gives: SessionRole },
  {
    method: "put",
    path: "/access",
    says: "Changes a role's passcode; owner only",
    body: AccessChange,
    gives: SessionRole,
  },
  {
    method: "delete",
    path: "/briefs/{id}/kept/{keptId}",
    says: "Removes a kept face, by its own id or its style's",
    gives: z.object({ styleId: z.string(), kept: z.boolean() }),
  },
  {
    method: "put",
    path: "/briefs/{id}/aside/{styleId}",
    says: "Sets a style aside for this brief",
    gives: z.object({ styleId: z.string(), aside: z.boolean() }),
  },
  {
    method: "delete",
    path: "/briefs/{id}/aside/{styleId}",
    says: "Brings it back",
    gives: z.object({ styleId: z.string(), aside: z.boolean() }),
  },
  {
    method: "get",
    path: "/briefs/{id}/checks",
    says: "Every check of the brief on one style",
    query: z.object({ styleId: z.string() }),
    gives: z.object({ checks: z.array(Check) }),
  },
  { method: "get", path: "/briefs/{id}/contact-sheet", says: "The contact sheet", file: "application/pdf" },
  { method: "get", path: "/briefs/{id}/shortlist", says: "The shortlist", file: "text/csv" },
  {
    method: "post",
    path: "/briefs/{id}/handover",
    says: "Starts making the archive",
    body: HandoverOptions,
    gives: z.object({ jobId: JobId }),
    status: 202,
  },
  {
    method: "get",
    path: "/briefs/{id}/spdx",
    says: "The licences of the shortlist as SPDX 2.3",
    file: "application/spdx+json",
  },
  { method: "get", path: "/briefs/{id}/credits", says: "The credits of the shortlist", file: "text/plain" },
  { method: "get", path: "/libraries", says: "What is connected", gives: z.object({ libraries: z.array(Library) }) },
  {
    method: "post",
    path: "/libraries",
    says: "Connects a folder or a catalogue (OPDS 2.0)",
    body: LibraryAdd,
    gives: z.object({ libraryId: LibraryId }),
    status: 201,
  },
  {
    method: "get",
    path: "/libraries/system-folders",
    says: "Folders of this system that hold fonts and are not connected yet",
    gives: z.object({ folders: z.array(SystemFolder) }),
  },
  { method: "get", path: "/libraries/{id}", says: "One library", gives: Library },
  { method: "patch", path: "/libraries/{id}", says: "Pauses, resumes, renames", body: LibraryPatch, gives: Library },
  {
    method: "delete",
    path: "/libraries/{id}",
    says: "Disconnects a library; what is owned stays",
    gives: z.object({ libraryId: z.string(), removed: z.boolean() }),
  },
  { method: "post", path: "/libraries/{id}/sync", says: "Syncs now", gives: z.object({ jobId: JobId }), status: 202 },
  {
    method: "get",
    path: "/libraries/{id}/refused",
    says: "What could not be taken, and why",
    gives: z.object({ publications: z.array(PublicationLine) }),
  },
  {
    method: "get",
    path: "/libraries/{id}/search",
    says: "Asks the library itself",
    query: z.object({ q: z.string() }),
    gives: z.object({
      total: z.number(),
      publications: z.array(z.object({ publicationId: z.string(), title: z.string(), maker: z.string().nullable() })),
    }),
  },
  {
    method: "get",
    path: "/styles/{id}/setting",
    says: "A line set by the library in a face that is not bought",
    query: SettingQuery,
    gives: SetLineReply,
  },
  {
    method: "post",
    path: "/styles/{id}/evidence",
    says: "Adds what the user knows of its terms",
    body: EvidenceAdd,
    gives: z.object({ evidenceId: z.string() }),
    status: 201,
  },
  {
    method: "patch",
    path: "/styles/{id}/evidence/{evidenceId}",
    says: "Takes back or restores",
    body: EvidencePatch,
    gives: z.object({ evidenceId: z.string(), removed: z.boolean() }),
  },
  {
    method: "delete",
    path: "/styles/{id}/evidence/{evidenceId}",
    says: "Takes back what the user added",
    gives: z.object({ evidenceId: z.string(), removed: z.boolean() }),
  },
  { method: "get", path: "/basket", says: "The basket", gives: Basket },
  { method: "put", path: "/basket/{styleId}", says: "Puts a face in for some uses", body: BasketPut, gives: Basket },
  { method: "delete", path: "/basket/{styleId}", says: "Takes a face out", gives: Basket },
  { method: "get", path: "/orders", says: "What was bought", gives: z.object({ orders: z.array(Order) }) },
  {
    method: "post",
    path: "/orders",
    says: "Buys what is in the basket from one library",
    body: OrderPlace,
    gives: OrderStarted,
    status: 202,
  },
  { method: "post", path: "/orders/{id}", says: "Fetches again what was bought", gives: OrderStarted, status: 202 },
  { method: "get", path: "/log", says: "The font log; format=csv gives a file", query: LogQuery, gives: Log },
  { method: "get", path: "/jobs", says: "What runs and what ran", gives: z.object({ jobs: z.array(Job) }) },
  { method: "get", path: "/jobs/{id}", says: "One job", gives: Job },
  { method: "delete", path: "/jobs/{id}", says: "Cancels a job", gives: Job },
  { method: "get", path: "/jobs/{id}/file", says: "The file a job made", file: "application/zip" },
];

const schemaOf = (type: z.ZodType, io: "input" | "output") => {
  const { $schema: _drop, ...schema } = z.toJSONSchema(type, {
    io,
    unrepresentable: "any",
    target: "draft-2020-12",
  }) as Record<string, unknown>;
  return schema;
};

/** Builds the document; pure, the same at every call. */
export function describeInterface() {
  const paths: Record<string, Record<string, unknown>> = {};
  for (const op of OPERATIONS) (paths[op.path] ??= {})[op.method] = describeOperation(op);
  return {
    openapi: "3.1.0",
    info: { title: "Fond Quarry", version: "1", description: `Error codes: ${FAULT_CODES.join(", ")}` },
    servers: [{ url: "/api/v1" }],
    paths,
  };
}

function describeOperation(op: Operation) {
  const inPath = [...op.path.matchAll(/\{(\w+)\}/g)].map(([, name]) => ({
    name,
    in: "path",
    required: true,
    schema: { type: "string" },
  }));
  const properties = op.query ? (schemaOf(op.query, "input").properties as Record<string, unknown>) : {};
  const inQuery = Object.entries(properties).map(([name, schema]) => ({ name, in: "query", required: false, schema }));
  const json = (schema: unknown) => ({ "application/json": { schema } });
  return {
    summary: op.says,
    parameters: [...inPath, ...inQuery],
    ...(op.body && { requestBody: { required: true, content: json(schemaOf(op.body, "input")) } }),
    ...(op.form && {
      requestBody: {
        required: true,
        content: { "multipart/form-data": { schema: { type: "object", properties: op.form } } },
      },
    }),
    responses: {
      [String(op.status ?? 200)]: {
        description: op.says,
        content: op.file ? { [op.file]: { schema: binary } } : json(schemaOf(op.gives!, "output")),
      },
      default: { description: "An error with its code", content: json(schemaOf(ErrorBody, "output")) },
    },
  };
}
