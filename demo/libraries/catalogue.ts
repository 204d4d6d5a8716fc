// What the three stand-in libraries offer, as publications of OPDS 2.0. Prices are per use and made up.
import { createHash } from "node:crypto";
import { FAMILIES, type FamilyPlan } from "../foundry/families";
import { fileNameOf, slugOf, TRIAL_CHARACTERS } from "../foundry/build";
import { ACCENTED } from "../foundry/face";

export const LIBRARIES = {
  commons: { title: "Tidewrack Commons", about: "An open collection: every face under an open licence." },
  ropewalk: { title: "Ropewalk Lane", about: "A street of independent makers, each with terms of their own." },
  halyard: { title: "Halyard & Lens", about: "A foundry's shop: families sold by use, trials with few characters." },
} as const;
export type LibraryName = keyof typeof LIBRARIES;
export const PAGE_SIZE = 8;
export const CURRENCY = "EUR";

/** Uses that the shop sells, in cents for one style. Apps are not sold. */
const PRICES = {
  "client-print": 2900,
  "goods-for-sale": 4900,
  web: 3900,
  video: 5900,
  cutting: 3500,
  logo: 6900,
  private: 1500,
};
type SoldUse = keyof typeof PRICES;

/** What makers and the collection say of their terms in the catalogue; null where they say nothing. */
const STATED: Record<string, string | null> = {
  "Skerrow Sans": "SIL Open Font License 1.1",
  "Marram Slab": "SIL Open Font License 1.1",
  "Holmgate Text": "SIL Open Font License 1.1",
  "Lampkeeper Mono": "SIL Open Font License 1.1",
  "Fairlead Flex": "SIL Open Font License 1.1",
  "Bulkhead Stencil": "Apache License 2.0",
  "Pebbleway Round": "CC0 1.0 Universal",
  "Skerrow Seamarks": "CC0 1.0 Universal",
  "Wrackline Script": "Personal use only",
  Bytebuoy: "Free for commercial use",
  "Railyard Signs": "Free for commercial use",
  Gangway: "Freeware",
};

/** What the collections say of some of their families, beside what these draw. */
const KEYWORDS: Record<string, string[]> = {
  "Skerrow Sans": ["wayfinding", "harbour signs"],
  "Marram Slab": ["field guides", "almanac"],
  "Pebbleway Round": ["children", "ice cream"],
  "Wrackline Script": ["seaside", "wedding"],
  Driftcask: ["distillery", "smokehouse"],
  Bytebuoy: ["arcade"],
  "Railyard Signs": ["railway"],
  Lanternrose: ["wedding", "tea room"],
  "Figurehead Titling": ["museum"],
};

export type Offer = { family: FamilyPlan; style: string | null; id: string; slug: string };

/** Publications of a library: a family each; in the shop a style each. */
export function offersOf(library: LibraryName): Offer[] {
  return FAMILIES.filter((f) => f.library === library).flatMap((family): Offer[] =>
    library === "halyard"
      ? family.styles.map((s) => {
          const slug = slugOf(`${family.family} ${s.style}`);
          return { family, style: s.style, id: `urn:fonts:${library}:${slug}`, slug };
        })
      : [{ family, style: null, id: `urn:fonts:${library}:${slugOf(family.family)}`, slug: slugOf(family.family) }],
  );
}

/** Price of a use in cents. Heavier families cost more; `isRaised` is the fault "changed price". */
export function priceOf(offer: Offer, use: string, isRaised: boolean): number | null {
  const base = PRICES[use as SoldUse];
  if (base === undefined) return null;
  const factor = 1 + (createHash("sha256").update(offer.family.family).digest()[0]! % 5) * 0.1;
  return Math.round((base * factor * (isRaised ? 1.25 : 1)) / 100) * 100;
}
export const SOLD_USES = Object.keys(PRICES) as SoldUse[];

/** Code point ranges of what the whole font covers, as the shop states it. */
const COVERED = (() => {
  const points = new Set<number>([...ACCENTED].map((c) => c.codePointAt(0)!));
  for (let c = 0x20; c < 0x7f; c++) points.add(c);
  for (const c of "©®°·×÷£€–—‘’“”„«»…•ßÆæØøŁłŒœı¿¡§¢¥") points.add(c.codePointAt(0)!);
  const sorted = [...points].sort((a, b) => a - b);
  const ranges: [number, number][] = [];
  for (const c of sorted) {
    const last = ranges[ranges.length - 1];
    if (last && last[1] === c - 1) last[1] = c;
    else ranges.push([c, c]);
  }
  return ranges;
})();

/** One publication. @param base - address of the library; @param token - put behind links that expire. */
export function publish(
  library: LibraryName,
  offer: Offer,
  base: string,
  token: string,
  revision: number,
  isRaised: boolean,
) {
  const { family } = offer;
  const metadata = {
    "@type": "http://schema.org/CreativeWork",
    identifier: offer.id,
    title: offer.style ? `${family.family} ${offer.style}` : family.family,
    author: family.designer,
    publisher: family.maker,
    modified: new Date(Date.UTC(2026, 9, 1 + revision)).toISOString(),
    subject: KEYWORDS[family.family] ?? [],
    ...(STATED[family.family] && { rights: STATED[family.family] }),
  };
  if (library !== "halyard")
    return {
      metadata,
      links: [
        {
          rel: "http://opds-spec.org/acquisition/open-access",
          href: `${base}/files/${offer.slug}.zip?${token}`,
          type: "application/zip",
        },
      ],
    };
  return {
    metadata: { ...metadata, family: family.family, style: offer.style },
    links: [
      {
        rel: "http://opds-spec.org/acquisition/sample",
        href: `${base}/trials/${fileNameOf(family.family, offer.style!)}.ttf?${token}`,
        type: "font/ttf",
        properties: { characters: TRIAL_CHARACTERS },
      },
      {
        rel: "http://opds-spec.org/acquisition/buy",
        href: `${base}/orders`,
        type: "application/json",
        properties: {
          price: { value: priceOf(offer, "client-print", isRaised)! / 100, currency: CURRENCY },
          prices: SOLD_USES.map((use) => ({ use, value: priceOf(offer, use, isRaised)! / 100, currency: CURRENCY })),
          indirectAcquisition: [{ type: "application/zip" }],
        },
      },
      {
        rel: "setting",
        href: `${base}/settings/${offer.slug}{?text}`,
        type: "image/svg+xml",
        templated: true,
        properties: { coverage: COVERED },
      },
    ],
  };
}
