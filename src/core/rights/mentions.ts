// References to standard licences by name, short name or address, in a sentence that says the font is under them.
import { findNarrowing } from "./narrowing";
import type { Statement } from "./statements";

type Mention = { spdx: string; statement: Statement };

/** Names of licences as they are written in running text. The version, where one stands, is put behind. */
const NAMES: [RegExp, (m: RegExpMatchArray, sentence: string) => string][] = [
  [
    /SIL\s+Open\s+Font\s+Licen[cs]e|\bOpen\s+Font\s+Licen[cs]e\b|\bSIL[- ]OFL\b|\bOFL(?:[- ]?1\.[01])?\b|(?:scripts\.sil\.org\/OFL|openfontlicense\.org)/i,
    (m) => (/1\.0/.test(m.input!) && !/1\.1/.test(m.input!) ? "OFL-1.0" : "OFL-1.1"),
  ],
  [
    /\bApache(?:\s+Software)?[\s-]+Licen[cs]e\b|\bApache[- ]?2(?:\.0)?\b|apache\.org\/licenses\/LICENSE-2\.0/i,
    () => "Apache-2.0",
  ],
  [/\bUbuntu\s+Font\s+Licen[cs]e\b|\bUFL(?:[- ]1\.0)?\b/i, () => "Ubuntu-font-1.0"],
  [/\bCC[- ]?0\b|Creative\s+Commons\s+Zero|creativecommons\.org\/publicdomain\/zero/i, () => "CC0-1.0"],
  [
    /(?:\bCC|Creative[- ]Commons|creativecommons\.org\/licenses)[\s/:(-]{0,4}(?:(?:licen[cs]e|lizenz|licencia)\)?[\s:(-]{0,4})?(?:BY|Attribution|Namensnennung|Reconocimiento|Atribuci[óo]n|Paternit[ée])(?:[\s/,_–-]{0,4}(?:NC|Non[- ]?Commercial|Nicht[- ]?kommerziell|No[- ]?Comercial|Pas d[’']Utilisation Commerciale))?(?:[\s/,_–-]{0,4}(?:SA|Share[- ]?Alike|ND|No[- ]?Deriv\w*|Weitergabe unter gleichen Bedingungen|Keine Bearbeitung\w*|CompartirIgual|SinDerivadas|Partage[^.]{0,60}|Pas de Modification))?/i,
    readCc,
  ],
  [/\bUnlicense\b|unlicense\.org/i, () => "Unlicense"],
  [/\bWTFPL\b/i, () => "WTFPL"],
  [/\bMIT[- ](?:licen[cs]ed?|lizenz|Licen[cs]e)\b|licen[cs]e:?\s+MIT\b|\bunder (?:the )?MIT\b/i, () => "MIT"],
  [/\bLGPL\b|Lesser\s+General\s+Public\s+Licen[cs]e/i, () => "LGPL-3.0-or-later"],
  [
    /\bGNU\s+General\s+Public\s+Licen[cs]e\b|\bGPL(?:v?[- ]?[23](?:\.0)?)?\b/i,
    // A version, or the font exception, may stand in another part of the sentence than the licence's name.
    (_, sentence) =>
      `GPL-${/(?:version|v|GPL[- ]?)\s*2/i.test(sentence) ? "2.0" : "3.0"}-or-later${FONT_EXCEPTION.test(sentence) ? " WITH Font-exception-2.0" : ""}`,
  ],
  [/\bBSD\b[^.]{0,20}licen[cs]e|\bBSD-[23]-Clause\b/i, () => "BSD-3-Clause"],
  [/\bISC\s+Licen[cs]e\b/i, () => "ISC"],
  [
    /public[- ]domain|gemeinfrei\p{L}*|domaine\s+public|dominio\s+p[úu]blico|publicdomain\/mark/iu,
    () => "LicenseRef-public-domain",
  ],
];
export const FONT_EXCEPTION = /font[- ]exception|does not by itself cause the resulting document to be covered/i;

function readCc(m: RegExpMatchArray): string {
  const t = m[0];
  const nc = /NC\b|Non[- ]?Commercial|Nicht[- ]?kommerziell|No[- ]?Comercial|Pas d[’']Utilisation/i.test(t)
    ? "-NC"
    : "";
  const sa = /SA\b|Share[- ]?Alike|gleichen Bedingungen|CompartirIgual|Partage/i.test(t) ? "-SA" : "";
  const nd = /ND\b|No[- ]?Deriv|Keine Bearbeitung|SinDerivadas|Pas de Modification/i.test(t) ? "-ND" : "";
  const version = m.input!.slice(m.index! + t.length).match(/^[^.\d]{0,24}([1-4]\.[05])/)?.[1] ?? "4.0";
  return `CC-BY${nc}${sa || nd}-${version}`;
}

/** Takes names of licences out of a sentence. */
export const withoutNames = (sentence: string) => EVERY_NAME.reduce((s, name) => s.replace(name, " "), sentence);
const EVERY_NAME = NAMES.map(([name]) => new RegExp(name.source, `${name.flags}g`));

/** Says that the font is under a licence; or the whole text is little more than its name. */
const UNDER =
  /licen[cs]\p{L}*|lizen[zs]\p{L}*|under|unter|sous|bajo|released?|available|veröffentlicht|diffusé|publicad\p{L}*|SPDX|terms|dedicat\p{L}*|placed|gestellt|is|ist|est|es\b/iu;
/** The licence is that of something else. */
const OTHER_THING =
  /\b(?:pictures?|images?|photos?|preview|website|source code|scripts?|software that|build|tools?|documentation|manual|readme|icons?|bilder|fotos?|dokumentation|webseite|photos|aper[çc]us?|documentaci[óo]n|im[áa]genes)\b/iu;
const OF_THE_FONT =
  /\b(?:font|fonts|typeface|face|schrift\p{L}*|police|fonte|caract[eè]res|fuente|tipograf[íi]a|letters|family|work|œuvre|obra|werk)\b/iu;
/** It was once, or is not. */
const DENIED =
  /\b(?:instead of|rather than|against|contrary to|(?:might|would|could|will|shall|going to|want to|plan to|hope to|may (?:one day|later|soon))\b(?!.{0,40}\bunder the terms)|considered|thought (?:of|about)|soon|one day|some ?day|perhaps|maybe|in (?:the )?future|next year|statt|anstelle|anstatt|gegen|entgegen|wird|werden|würden?|vielleicht|bald|künftig|demnächst|eines tages|überleg\p{L}*|plus tard|au lieu d\p{L}*|plutôt que|contrairement|bient[ôo]t|un jour|peut-être|envisag\p{L}*|sera|seront|prochain\p{L}*|en lugar de|en vez de|contra|alg[úu]n d[íi]a|quiz[áa]s?|tal vez|pronto|publicaremos|será|pensa\p{L}*|no longer|not|never|formerly|previously|used to be|isn[’']t|früher|nicht|kein\p{L}*|ehemals|ne\b[^.]*\bpas|anciennement|n[’']est (?:pas|plus)|ya no|no est[áa]|anteriormente|unlike)\b/iu;
/** Said of a licence that was thought of and not taken, wherever in the sentence. */
const REJECTED =
  /(?<!\p{L})(?:decided against|not (?:under|released|licen[cs]ed|published|available|covered)|did(?:n[’']t| not) (?:choose|take|pick|use)|entschieden uns gegen|gegen die .{0,40} entschieden|nicht (?:unter|gewählt|genommen|veröffentlicht)|n[’']a(?:vons)? pas (?:été|choisi|retenu)|n[’']est pas (?:sous|publiée|diffusée)|no (?:la|lo) (?:elegimos|escogimos)|no est[áa] (?:bajo|publicad\p{L}*)|no se publica)(?!\p{L})/iu;
/** Conditions that Creative Commons names with a word of denial: "Namensnennung - Nicht kommerziell" denies no licence. */
const CONDITION = /nicht[- ]kommerziell|keine bearbeitung\w*/giu;

/** The licence is that of the font this one was made from. */
const OF_ANOTHER =
  /\b(?:based on|derived from|inspired by|modell?ed (?:on|after)|basiert auf|nach vorlage|bas[ée]e? sur|inspir[ée]e? d|basad[ao] en|unlike)\b/iu;

/** Finds references in the statements of a text. @param isWhole - the text is a statement of its own (a name string, a library's field). */
export function findMentions(statements: Statement[], isWhole: boolean): { mentions: Mention[]; denied: Statement[] } {
  const mentions: Mention[] = [];
  const denied: Statement[] = [];
  for (const statement of statements) {
    // Denied anywhere in its sentence: "we thought of the OFL, and did not take it".
    const isDenied = REJECTED.test(statement.text);
    for (const part of partsOf(statement.text)) {
      for (const [name, idOf] of NAMES) {
        const m = part.match(name);
        if (!m) continue;
        if (OF_ANOTHER.test(part.slice(0, m.index))) continue;
        if (OTHER_THING.test(part) && !OF_THE_FONT.test(part.replace(m[0], " "))) continue;
        const before = part.slice(0, m.index! + m[0].length).replace(CONDITION, " ");
        const isAsked = /\?["”»)]?\s*$/.test(part);
        if (isDenied || isAsked || DENIED.test(before) || isNarrowed(part)) denied.push(statement);
        else if (
          isWhole ||
          UNDER.test(part.replace(m[0], " ")) ||
          part.length < m[0].length + 24 ||
          statement.heading !== null
        )
          mentions.push({ spdx: idOf(m, statement.text), statement });
        // Named, yet not granted.
        else denied.push(statement);
        break;
      }
    }
  }
  return { mentions, denied };
}

/** A licence that is granted to some, for a time or in a place, or in words that are not understood, is asked for. */
function isNarrowed(part: string): boolean {
  if (FONT_EXCEPTION.test(part) || OWN_NOTICE.test(part)) return false;
  const bare = withoutNames(
    part
      .replace(/https?:\/\/\S+|www\.\S+/giu, " ")
      .replace(OPENING_NAME, " ")
      .replace(COPYRIGHT, " "),
  );
  return findNarrowing(bare.replace(VERSION, " ").replace(GRANTING, " ")) !== null;
}
/** The font's own name, set off from what is said of it; "Für Mitglieder, …" is none. */
const OPENING_NAME =
  /^\s*(?!(?:For|In|On|At|By|Für|Im|Am|An|Bei|Pour|Dans|En|Aux?|Para|Por|A)\s)(?:\p{Lu}[\p{L}\d’'-]*\s*){1,5}(?=[,(–—]|\s-\s)/u;
const COPYRIGHT = /(?:©|\(c\)|\bcopyright\b)[^,.;]{0,120}?(?=[,.;(]|\b(?:licen|released|under|available)|$)/giu;
/** Sentences that the licences themselves ask to be put beside what is under them. */
const OWN_NOTICE =
  /redistribute (?:it|them) and\/or modify|dedicated (?:this|the) .{0,40}public domain|copied below|available with a FAQ|this license is available/iu;
const VERSION = /(?:\bversion|\bv\.?)?[\s-]*\b[1-4]\.[0-9]\b|\bversion [1-4]\b/giu;
/** How a grant is put, whatever the licence. */
const GRANTING =
  /(?<!\p{L})(?:under|unter|sous|bajo|released?|available|distributed|distribut?ed|veröffentlicht|steht|stehen|gestellt|lizen[zs]iert|diffusée?s?|distribuée?s?|publiée?s?|proposée?s?|distribuid\p{L}*|publicad\p{L}*|licenciad\p{L}*|bajo|universal|international|internacional|unported|generic|SPDX|identifier|project|authors?|reserved|œuvre|public|domain|dedicated|dedication|placed|free|software|open|source|dual|see|full|latest|later|foundation|https?)(?!\p{L})/giu;

/** Parts of a sentence that speak of different things: "the font is under A, the documentation under B". */
const partsOf = (sentence: string) =>
  sentence.split(
    /;|,\s+(?=(?:the|die|das|der|la|les|el|las|los|all|its|while|whereas|and the|und die|et la|et les|y la|y las)\s)/iu,
  );
