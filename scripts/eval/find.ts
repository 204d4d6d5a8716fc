// npm run eval:find: sentences as people say them against the demo library. What fits each was written down before finding was built:
// families that a practitioner would accept, chosen by how they look. A sentence passes when one is among the first ten; when it
// narrows (`none`), none of those may be there at all. Then 30 family names with slips: the family must come first. Then phrases of what
// lettering is for: how many of the first eight families fit; --sealed opens the half that was put away.
import { indexStyles } from "../../src/core/find/findIndex";
import { findStyles } from "../../src/core/find/findStyles";
import { mean } from "../../src/core/geometry/numbers";
import { stepsApart } from "../../src/core/find/alike";
import { MIXED } from "./mixed";
import { readRows } from "./measured";
import { familiesOf } from "./themes/groups";
import { SEALED } from "./themes/sealed";
import { SEEN } from "./themes/seen";
import { getWordMeanings } from "../../src/server/usecases/wordMeanings";
import { COUNTED, getLanguages, speaksIn } from "../../src/server/usecases/languages";

type Sentence = { q: string; fits: string; none?: string; understood?: string[] };
const SENTENCES: Sentence[] = [
  {
    q: "sturdy slab with an ampersand, to sell with",
    fits: "Alfa Slab One, Zilla Slab, Rokkitt, Arvo, Hepta Slab, Aleo",
    understood: ["has &"],
  },
  { q: "tall thin capitals", fits: "Amatic SC" },
  {
    q: "chunky rounded, friendly",
    fits: "Fredoka, Chewy, Titan One, Varela Round, Nunito, Comfortaa, Luckiest Guy, Baloo",
  },
  { q: "old typewriter", fits: "Special Elite, Courier Prime" },
  {
    q: "like Lora but narrower and free to sell",
    fits: "Cormorant, Crimson Pro, Alegreya, Spectral, Vollkorn, Playfair Display, Cardo, Libre Baskerville, Gelasio, Literata, Fraunces, Grenze Gotisch, Instrument Serif, Sorts Mill Goudy, IM Fell English, Young Serif, Old Standard TT, GFS Didot",
    none: "Lora",
  },
  {
    q: "has & and +",
    fits: "Work Sans, Lora, Oswald, Barlow, Karla, Rubik, Manrope, Outfit, Sora, Urbanist, DM Sans, Archivo, Aleo, Arvo, Abril Fatface, Alegreya, Alegreya Sans, Alfa Slab One, Allerta Stencil, Amatic SC, Anton",
  },
  {
    q: "variable with optical size",
    fits: "Fraunces, Literata, Roboto Flex, Bricolage Grotesque, Imbue, Pathway Extreme",
  },
  {
    q: "at least 6 weights",
    fits: "Work Sans, Archivo, Barlow, Exo 2, Fraunces, Hepta Slab, Libre Franklin, Lexend, Outfit, Urbanist, Alegreya Sans, Aleo, Big Shoulders Display, Bitter, Bodoni Moda, Barlow Condensed, Crimson Pro, Commissioner, DM Sans, Encode Sans",
    none: "Abril Fatface",
  },
  {
    q: "not pictures",
    fits: "Lora, Abril Fatface, Alegreya, Aleo, Alegreya Sans, Alex Brush, Alfa Slab One, Allerta Stencil, Allura, Amatic SC",
    none: "Libre Barcode 39, Redacted Script",
  },
  {
    q: "heavy condensed poster",
    fits: "Anton, Big Shoulders Display, Teko, Staatliches, Oswald, Bangers, Londrina Solid, Barlow Condensed, Archivo Narrow",
  },
  {
    q: "elegant high contrast serif",
    fits: "Bodoni Moda, Playfair Display, Abril Fatface, Rozha One, Gloock, DM Serif Display, Cormorant, Imbue, GFS Didot, Kalnia, Instrument Serif",
  },
  {
    q: "wedding script",
    fits: "Great Vibes, Alex Brush, Allura, Parisienne, Tangerine, Pinyon Script, Italianno, Monsieur La Doulaise, Mr De Haviland, Sacramento",
  },
  {
    q: "handwritten, not joined",
    fits: "Patrick Hand, Kalam, Architects Daughter, Gloria Hallelujah, Covered By Your Grace, Shadows Into Light, Reenie Beanie, Rock Salt, Permanent Marker, Caveat, Cedarville Cursive, Homemade Apple, Amatic SC",
  },
  {
    q: "blackletter",
    fits: "UnifrakturMaguntia, UnifrakturCook, Grenze Gotisch, Pirata One, MedievalSharp, Uncial Antiqua",
  },
  { q: "stencil", fits: "Allerta Stencil, Stardos Stencil, Wallpoet" },
  { q: "monospaced light", fits: "IBM Plex Mono, Victor Mono, Sometype Mono, Space Mono, Recursive, Doto" },
  { q: "pixel font", fits: "Press Start 2P, VT323, Pixelify Sans, Silkscreen, Handjet" },
  { q: "dotted", fits: "Doto, Handjet" },
  { q: "outline", fits: "Londrina Outline" },
  { q: "inline capitals", fits: "Bungee Inline, Monoton" },
  { q: "shadow", fits: "Bungee Shade, Ewert" },
  { q: "spooky dripping", fits: "Nosifer, Creepster" },
  { q: "western", fits: "Rye, Sancreek, Ewert, Alfa Slab One, Abril Fatface" },
  {
    q: "distressed",
    fits: "Special Elite, Rock Salt, Cabin Sketch, Fredericka the Great, Nosifer, Metal Mania, IM Fell English",
  },
  {
    q: "tabular figures for a booklet",
    fits: "Alegreya, Alegreya Sans, Lora, Work Sans, Literata, Source, Spectral, IBM Plex Sans, IBM Plex Serif, Bitter, Aleo, Merriweather, Crimson Pro, Barlow, Commissioner, Encode Sans, Libre Franklin, Vollkorn, Gelasio, Atkinson Hyperlegible, Archivo, DM Sans, Titillium Web, Libre Baskerville, Arvo, Zilla Slab",
  },
  {
    q: "old-style figures serif",
    fits: "Alegreya, Cormorant, Vollkorn, Sorts Mill Goudy, IM Fell English, Cardo, Spectral, Philosopher, Old Standard TT, Playfair Display, Merriweather, Crimson Pro, Grenze Gotisch, Young Serif",
  },
  {
    q: "small capitals",
    fits: "Cinzel, Amatic SC, Cinzel Decorative, Metal Mania, Permanent Marker, Rock Salt, Monoton, Faster One",
  },
  {
    q: "hairline sans",
    fits: "Work Sans, Barlow, Outfit, Urbanist, Josefin Sans, Exo 2, Libre Franklin, Lexend, Sora, Archivo, Poiret One, Alegreya Sans, Encode Sans, Big Shoulders Display, Commissioner, DM Sans",
  },
  {
    q: "very wide sans",
    fits: "Krona One, Syncopate, Unbounded, Syne, Audiowide, Rubik Mono One, Climate Crisis, Wallpoet, Archivo, Roboto Flex",
  },
  {
    q: "italic serif light",
    fits: "Cormorant, Crimson Pro, Spectral, Fraunces, Merriweather, Zilla Slab, IBM Plex Serif, Imbue, Aleo, Bitter, Rokkitt, Hepta Slab",
  },
  {
    q: "geometric sans single storey a",
    fits: "Outfit, Comfortaa, Josefin Sans, Poiret One, Urbanist, Lexend, Fredoka, Varela Round, Sora",
  },
  {
    q: "legible at small sizes, open forms",
    fits: "Atkinson Hyperlegible, Lexend, Work Sans, Barlow, Karla, Encode Sans, Titillium Web, IBM Plex Sans, Alegreya Sans, Commissioner, Nunito, Libre Franklin, Rubik, Manrope, DM Sans, Sometype Mono, Merriweather, Exo 2",
  },
  { q: "for Polish, slab", fits: "", none: "Lora", understood: ["sets Polish", "slab serif"] },
  {
    q: "rounder and heavier than most",
    fits: "Fredoka, Titan One, Chewy, Varela Round, Nunito, Luckiest Guy, Comfortaa, Unbounded, Pacifico, Londrina Solid, Climate Crisis, Baloo, Permanent Marker, Bangers",
  },
  {
    q: "like Bodoni Moda but heavier",
    fits: "Abril Fatface, Playfair Display, DM Serif Display, Gloock, Rozha One, Limelight, Kalnia, Imbue, Fraunces",
    none: "Bodoni Moda",
  },
  {
    q: "brush script, energetic",
    fits: "Kaushan Script, Yellowtail, Pacifico, Lobster, Satisfy, Cookie, Courgette, Dancing Script, Permanent Marker, Rock Salt, Caveat",
  },
  {
    q: "medieval",
    fits: "UnifrakturMaguntia, UnifrakturCook, Grenze Gotisch, Pirata One, MedievalSharp, Uncial Antiqua",
  },
  {
    q: "art deco",
    fits: "Poiret One, Limelight, Federo, Josefin Sans, Italiana, Fascinate, Monoton, Righteous, Syncopate",
  },
  {
    q: "signage sans medium",
    fits: "Work Sans, Barlow, Encode Sans, Titillium Web, IBM Plex Sans, Atkinson Hyperlegible, Commissioner, Libre Franklin, Rubik, Archivo, Manrope, DM Sans, Lexend, Karla, Exo 2, Outfit, Sora, Urbanist, Nunito, Alegreya Sans, Familjen Grotesk, Space Grotesk, Allerta Stencil, Audiowide, Bricolage Grotesque",
  },
  {
    q: "film title, wide capitals",
    fits: "Syncopate, Cinzel, Krona One, Staatliches, Bungee, Cinzel Decorative, Rubik Mono One",
  },
];
const SLIPS: Record<string, string> = {
  lroa: "Lora",
  "zila slab": "Zilla Slab",
  "playfare display": "Playfair Display",
  "abril fatfase": "Abril Fatface",
  "work snas": "Work Sans",
  osvald: "Oswald",
  merriwether: "Merriweather",
  "libre baskervile": "Libre Baskerville",
  comforta: "Comfortaa",
  "dancing scipt": "Dancing Script",
  pacfico: "Pacifico",
  fraunses: "Fraunces",
  "bodoni mdoa": "Bodoni Moda",
  "grate vibes": "Great Vibes",
  "permanent maker": "Permanent Marker",
  "courier prme": "Courier Prime",
  "ibm plx mono": "IBM Plex Mono",
  alegria: "Alegreya",
  "josefine sans": "Josefin Sans",
  "barlow condenced": "Barlow Condensed",
  cinzell: "Cinzel",
  rokkit: "Rokkitt",
  vollkron: "Vollkorn",
  spectrel: "Spectral",
  unbouded: "Unbounded",
  manrop: "Manrope",
  caveet: "Caveat",
  "titilium web": "Titillium Web",
  "young serrif": "Young Serif",
  "press strat 2p": "Press Start 2P",
};

const index = indexStyles(await readRows());
const around = {
  lexicon: {
    tags: new Set<string>(),
    languages: getLanguages().byName,
    places: getLanguages().byPlace,
    words: getWordMeanings(),
  },
  speaks: (c: string) => speaksIn(index, c),
  languages: COUNTED,
};
const namesOf = (list: string) =>
  list
    .split(",")
    .map((s) => s.trim())
    .filter(Boolean);
let good = 0;
for (const { q, fits, none, understood } of SENTENCES) {
  const found = findStyles(
    index,
    { q, fold: true },
    { lines: [], wanted: "", uses: ["goods-for-sale"], setAside: [] },
    around,
  );
  const families = Array.from(found.order, (_, place) => found.at(place).row.family);
  const first = families.slice(0, 10);
  const wanted = namesOf(fits);
  const hit = !wanted.length || first.some((f) => wanted.includes(f));
  const clean = !namesOf(none ?? "").some((f) => families.includes(f));
  const words = found.understood.words.map((w) => w.label);
  const told = (understood ?? []).every((u) => words.includes(u));
  const ok = hit && clean && told;
  if (ok) good++;
  const share = wanted.length
    ? `${first.filter((f) => wanted.includes(f)).length}/${Math.min(10, first.length)} fit`
    : "";
  console.log(
    `${ok ? "ok " : "NO "} “${q}” → ${words.join(" · ")}${found.understood.ignored.length ? ` | not understood: ${found.understood.ignored.join(", ")}` : ""}`,
  );
  console.log(`     ${found.families} families, ${share}: ${first.join(", ")}`);
}
console.log(`\nSENTENCES: ${good} of ${SENTENCES.length} (${((100 * good) / SENTENCES.length).toFixed(0)} %)`);
let named = 0;
for (const [typed, family] of Object.entries(SLIPS)) {
  const found = findStyles(index, { q: typed }, null, around);
  const first = found.order.length ? found.at(0).row.family : "nothing";
  if (first === family) named++;
  else console.log(`NO  name “${typed}” → ${first}, not ${family}`);
}
console.log(`NAMES WITH SLIPS: ${named} of ${Object.keys(SLIPS).length} found first`);

const FIRST_FAMILIES = 8;
/** Of each phrase, the share of the first families that fit; and how many phrases are not read at all. */
function judgeThemes(name: string, phrases: Readonly<Record<string, string>>) {
  let unread = 0;
  const shares = Object.entries(phrases).map(([q, fits]) => {
    const found = findStyles(index, { q, fold: true, nearest: true }, null, around);
    if (!found.understood.words.length) unread++;
    const fair = familiesOf(fits);
    const first = Array.from({ length: Math.min(FIRST_FAMILIES, found.total) }, (_, k) => found.at(k).row.family);
    const share = first.filter((family) => fair.has(family)).length / FIRST_FAMILIES;
    if (process.argv.includes("--told"))
      console.log(
        `   ${share * FIRST_FAMILIES}/8 “${q}” ${found.understood.words.map((w) => w.label).join(" · ")}: ${first.map((f) => (fair.has(f) ? f : `[${f}]`)).join(", ")}`,
      );
    return share;
  });
  const percent = (share: number) => `${(100 * share).toFixed(0)} %`;
  console.log(
    `THEMES, ${name}: ${percent(mean(shares)!)} of the first eight families fit, half or more for ${percent(shares.filter((s) => s >= 0.5).length / shares.length)} of the phrases, ${percent(unread / shares.length)} not read`,
  );
}
judgeThemes("seen half", SEEN);
if (process.argv.includes("--sealed")) judgeThemes("sealed half", SEALED);

let read = 0;
let empty = 0;
for (const [q, wanted] of Object.entries(MIXED)) {
  const found = findStyles(index, { q, fold: true, nearest: true }, null, around);
  const labels = found.understood.words.map((w) => w.label);
  const isRead =
    labels.length === wanted.length &&
    wanted.every((w) => labels.some((l) => (w.endsWith("→") ? l.startsWith(w) : l === w)));
  if (isRead) read++;
  else
    console.log(`NO  “${q}” → ${labels.join(" · ")} ${found.understood.ignored.join(" ")}, not ${wanted.join(" · ")}`);
  if (!found.order.length) {
    empty++;
    console.log(`    “${q}” ends in an empty wall`);
  }
}
console.log(`MIXED PHRASES: ${read} of ${Object.keys(MIXED).length} read as meant, ${empty} empty walls`);

const FIRST_SCREEN = 12;
/** Of thirty questions, themes, sentences, kinds and none at all: how far the first screen is spread beside the same results by name, and what that costs in fit. */
const ASKED = [
  ...Object.keys(SEEN).slice(0, 12),
  "",
  "serif",
  "script",
  "display",
  "sans",
  "slab",
  "handwritten",
  "wide",
  "narrow",
  "heavy",
  "light",
  ...SENTENCES.map((s) => s.q),
]
  .filter((q) => !q.includes("like") && findStyles(index, { q, fold: true }, null, around).families >= 2 * FIRST_SCREEN)
  .slice(0, 30);
const spread = ASKED.map((q) => {
  const screen = (sort: string, fold: boolean) => {
    const found = findStyles(index, { q, fold, nearest: true, sort }, null, around);
    const rows = Array.from({ length: Math.min(FIRST_SCREEN, found.total) }, (_, k) => found.at(k));
    const at = rows.map(({ row }) => index.rowOf.get(row.styleId)!);
    const pairs = at.flatMap((a, i) => at.slice(0, i).map((b) => stepsApart(index, a, b)));
    return { apart: mean(pairs) ?? 0, fit: mean(rows.map((r) => r.fit?.degree ?? 0)) ?? 0, total: found.total };
  };
  const best = findStyles(index, { q, fold: true, nearest: true }, null, around);
  const degrees = Array.from({ length: best.total }, (_, k) => best.at(k).fit?.degree ?? 0).sort((a, b) => b - a);
  const [ranged, named] = [screen("fit", true), screen("name", false)];
  return { apart: ranged.apart, byName: named.apart, lost: mean(degrees.slice(0, FIRST_SCREEN))! - ranged.fit };
});
if (process.argv.includes("--told"))
  spread.forEach((r, k) =>
    console.log(`   “${ASKED[k]}”: ${r.apart.toFixed(1)} beside ${r.byName.toFixed(1)}, ${r.lost.toFixed(3)} lost`),
  );
console.log(
  `RANGE: the first ${FIRST_SCREEN} are ${(mean(spread.map((s) => s.apart))! / mean(spread.map((s) => s.byName))!).toFixed(2)} × as far apart as the first styles by name, at ${mean(spread.map((s) => s.lost))!.toFixed(3)} less fit than the best ${FIRST_SCREEN}`,
);
