// The catalogue that a library offers over HTTP: OPDS 2.0 (drafts.opds.io/opds-2.0), with a few properties for fonts that
// docs/LIBRARIES.md describes. Read leniently: what is not known is passed over, what is needed is checked.
import { z } from "zod";
import { Use } from "./traits";

const Price = z.object({ value: z.number().min(0), currency: z.string().regex(/^[A-Z]{3}$/) });
export const OpdsLink = z.object({
  rel: z.union([z.string(), z.array(z.string())]).optional(),
  href: z.string().max(2000),
  type: z.string().optional(),
  templated: z.boolean().optional(),
  title: z.string().optional(),
  properties: z
    .object({
      price: Price.optional(),
      prices: z.array(Price.extend({ use: Use })).optional(),
      coverage: z
        .array(z.tuple([z.number().int().min(0), z.number().int().max(0x10ffff)]))
        .max(5000)
        .optional(),
      numberOfItems: z.number().optional(),
    })
    .optional()
    .catch(undefined),
});
export type OpdsLink = z.infer<typeof OpdsLink>;

const Name = z
  .union([z.string(), z.object({ name: z.string() }).transform((o) => o.name)])
  .optional()
  .catch(undefined);
/** What a publication is about, in words: one or several, each a text or an object with a name. What else stands there is passed over. */
const Subjects = z
  .unknown()
  .transform((given) => (Array.isArray(given) ? given : [given]).flatMap((s) => Name.parse(s) ?? []))
  .transform((words) => [...new Set(words.map(toKeyword))].filter((w) => w.length > 1).slice(0, MAX_KEYWORDS));
const MAX_KEYWORDS = 40;
const MAX_KEYWORD_CHARS = 40;
const toKeyword = (text: string) =>
  text.slice(0, MAX_KEYWORD_CHARS).normalize("NFC").trim().replace(/\s+/g, " ").toLowerCase();

export const OpdsPublication = z.object({
  metadata: z.object({
    identifier: z.string().min(1).max(300),
    title: z.string().min(1).max(300),
    author: Name,
    publisher: Name,
    modified: z.string().max(60).optional().catch(undefined),
    rights: z.string().max(5000).optional().catch(undefined),
    family: z.string().max(200).optional().catch(undefined),
    style: z.string().max(200).optional().catch(undefined),
    subject: Subjects.optional(),
  }),
  links: z.array(OpdsLink).max(100),
});
export type OpdsPublication = z.infer<typeof OpdsPublication>;

export const OpdsFeed = z.object({
  metadata: z.object({
    title: z.string().max(200),
    numberOfItems: z.number().int().min(0).optional().catch(undefined),
  }),
  links: z.array(OpdsLink).default([]),
  publications: z.array(z.unknown()).default([]),
});
export type OpdsFeed = z.infer<typeof OpdsFeed>;

export const REL = {
  openAccess: "http://opds-spec.org/acquisition/open-access",
  sample: "http://opds-spec.org/acquisition/sample",
  buy: "http://opds-spec.org/acquisition/buy",
} as const;

export const hasRel = (link: OpdsLink, rel: string) =>
  Array.isArray(link.rel) ? link.rel.includes(rel) : link.rel === rel;

/** What the shop answers to an order. */
export const OrderReply = z.object({
  orderId: z.string(),
  receipt: z.string().max(20_000),
  deliveries: z.array(z.object({ publicationId: z.string(), href: z.string().max(2000), uses: z.array(Use) })),
});
export type OrderReply = z.infer<typeof OrderReply>;
