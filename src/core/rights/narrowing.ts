// Whether a permission is narrowed: by person, time, place, number or money, or by words that the reader does not know. A condition is
// no permission: what is narrowed is asked of the maker. General by design: not what narrows is listed, but what does not.
import {
  ABOUT_TERMS,
  CREDIT,
  DONATION,
  FONT_ITSELF,
  KIND_NO,
  NON_COMMERCIAL,
  ONLY,
  OPTIONAL,
  PASSING_ON,
  PERMISSION,
  SCOPES,
  SELLING,
  THESE_USES,
} from "./lexicon";

const every = (r: RegExp) => new RegExp(r.source, r.flags.includes("g") ? r.flags : `${r.flags}g`);
/** Words that are understood where they stand, longest phrases first. */
const UNDERSTOOD = [
  ...[KIND_NO, NON_COMMERCIAL, OPTIONAL],
  ...[SCOPES.any, SCOPES.commercial, SCOPES.private, SCOPES["goods-for-sale"], SCOPES["client-print"]],
  ...[SCOPES.web, SCOPES.video, SCOPES.app, SCOPES.cutting, SCOPES.logo],
  // Named beside others it adds to them; alone it would narrow.
  /(?:and|or|und|oder|et|ou|y|o|,)\s+(?:for\s+)?(?:educational|academic)\s+(?:purposes?|use)/iu,
  ...[FONT_ITSELF, PERMISSION, ONLY, CREDIT, DONATION, PASSING_ON, SELLING, THESE_USES],
].map(every);

/** Words of the four languages that narrow nothing: joints of sentences, whoever reads, the font, its making, politeness. */
const HARMLESS = new Set(
  `a an the this that these those it its they them their and or as well both also too even including any all every each of for to in on
 at by with from into out up about over again is are be been being was am do does did done have has had having will shall would should
 you your yours yourself we us our i me my mine everyone everybody anyone anybody people person persons who whoever whatever
 wherever whenever however which what how such other others another one ones so just really simply completely totally absolutely
 entirely fully always here there then very much more lot lots kind kinds sort type types way ways like want wish please
 need thing things use used uses using usage user users work works project projects purpose purposes design designs designer designers
 font fonts typeface typefaces face faces type family families file files letter letters letterform lettering download downloaded
 downloads downloading install installed version versions regular bold italic style styles weight weights character characters glyph
 glyphs made make makes making created create creation drawn drew draw designed by maker author copyright name names hello hi dear
 thank thanks enjoy fun happy hope love good great nice best welcome regards cheers licence license licensed licences licenses
 term terms condition conditions permission permissions right rights granted grant hereby given give worldwide perpetual perpetually
 royalty royalty-free charge cost costs fee price money paid payment gratis zero absolutely-free ever forever unlimited number without
 let may can could not no never don't doesn't isn't non own between within-reason anything everything nothing yes sure ok okay
 publish published release released share shared modify modified change adapt 
 read see look find found file readme text page information info details question questions contact mail email website link visit
 der die das den dem des ein eine einen einem einer eines dieser diese dieses diesen diesem jeder jede jedes jeden jedem alle allen aller
 und oder sowie wie auch als sowohl für zu zum zur in im an am auf aus bei mit von vom über um nach ohne durch ist sind sein wird werden
 wurde war habe hat haben hatte du dich dir dein deine deinen deinem deiner ihr euch euer eure euren eurem sie ihnen ihre ihren ihrem
 man wir uns unser unsere ich mich mir mein meine meinen meinem es was wer so ganz völlig einfach gern gerne immer hier dort sehr viel
 viele mehr etwas art arten weise zweck zwecke zwecken projekt projekte projekten arbeit arbeiten schrift schriften schriftart
 schriftarten schriftfamilie schriftdatei datei dateien font fonts buchstabe buchstaben familie gestaltet gezeichnet entworfen gemacht
 erstellt version spaß freude danke vielen herzlichen dank hallo liebe grüße bitte nutzung gebrauch verwendung einsatz benutzung
 nutzen verwenden benutzen einsetzen setzen genutzt verwendet benutzt eingesetzt beliebig beliebige frei freie kostenlos lizenz lizenzen
 bedingung bedingungen recht rechte erlaubnis damit dafür davon dabei darauf kannst könnt können darf darfst dürft dürfen und/oder
 weltweit unbegrenzt uneingeschränkt zeitlich unbefristet le la les l un une des du de d au aux ce cet cette ces c qui que qu quoi dont
 où et ou ainsi comme aussi y compris même pour par avec sans dans en sur à est sont être été était soit ai a avez avons ont avoir je j me m
 mon ma mes tu te t ton ta tes toi vous votre vos il elle ils elles on nous notre nos leur leurs se s tout toute tous toutes chaque
 police polices fonte fontes caractère caractères typographie typographies lettre lettres fichier fichiers famille version dessiné
 dessinée créé créée créés faite fait usage usages utilisation utilisations utiliser utilisez utilise utilisée utilisées utilisés projet
 projets fin fins travail travaux merci bonjour visite plaisir très bien plus librement gratuitement entièrement complètement
 totalement absolument toujours licence licences condition conditions droit droits auteur peut peuvent pouvez peux besoin limite limites
 el la los las lo un una unos unas del al este esta estos estas ese esa eso esto y o u e ni como también incluso tanto para por con sin
 en de sobre es son ser sido era está están estar he ha han hemos haber yo me mi mis tú te ti tu tus usted ustedes su sus nosotros nos
 nuestro nuestra se le les que qué quien cual todo toda todos todas cada cualquier cualquiera fuente fuentes tipografía tipografías letra
 letras tipo tipos archivo archivos familia versión dibujada dibujé creada diseñada hecha uso usos usar usarla usarlo utilizar utilizarla
 utilizarlo usada usado proyecto proyectos fin fines trabajo trabajos gracias hola disfrutes disfrutar disfruta muy bien más libremente
 gratuitamente completamente totalmente siempre licencia licencias condición condiciones derecho derechos autor puede pueden puedes
 podéis necesidad límite límites
 matter materials items means pleasure create creates desktop standard basic stuff home screen screens digital
 signage signs sign machine machines craft crafts crafting crafter obtaining obtain copy copies person persons private person's set put
 take belongs reproduce computer computers needed include includes included including under both either agreement notice note notes
 where whether but however yet still only then than subject hereby grants granted grants right-holder he she his her
 cards makers kunden gibt gemacht gemachte gemachten selbst auftrag
 werken werke medien bereich bereiche rahmen sondern aber jedoch oder andere anderen anderer sonstige urheber urheberin gestalter
 gestalterin autor autorin nutzungsrecht nutzungsrechts einräumung nutzer nutzerin lizenznehmer vollständig inklusive samt einschließlich
 êtes suis sommes création créations créer cadre présente présent contexte personnels imprimés écran maison autrice graphiste nom
 obligatoire création impression dessinateur dessinatrice créateur créatrice zeichner zeichnerin dibujante creador creadora
 quieras quieres queráis menos salvo excepto propio propios propia propias autora diseñadora diseñador usuario usuarios comprador
 crear creación emplear emplearla obras obra`.split(/\s+/),
);

/** What opens a condition, a stretch of time, a place or a limit. */
const OPENS_CONDITION =
  /(?<!\p{L})(?:if|provided|providing|as long as|so long as|while|until|till|unless|during|within|throughout|when|once|before|after|at most|at least|up to|less than|fewer than|more than|no more than|wenn|falls|sofern|solange|soweit|bis|während|innerhalb|vorausgesetzt|höchstens|maximal|weniger als|mehr als|sobald|si|tant que|pourvu que|à condition|pendant|jusqu\p{L}*|hors|dès|lorsque|quand|moins de|plus de|au plus|inférieur\p{L}*|supérieur\p{L}*|mientras|siempre que|siempre y cuando|hasta|durante|dentro|menos de|más de|como máximo|cuando|(?:cet|l[’']|en) été|(?:with|mit|avec|con|upon|after) (?:our|my|prior|written|the maker[’']s|unserer|meiner|vorheriger|notre|mon|l[’']|nuestr[oa]|mi)\s?(?:written |prior )?(?:consent|approval|agreement|permission|zustimmung|genehmigung|einwilligung|accord|autorisation|permiso|acuerdo|consentimiento|autorización))(?!\p{L})/giu;
/** Conditions that are none: "if you like". */
const EMPTY_CONDITION =
  /\b(?:if (?:you are|you[’']re|it is for) (?:a )?(?:private|personal)\b|(?:if|when|as|wherever|however) you (?:like|want|wish|please|need|can)|wenn (?:du|ihr|sie) (?:magst?|mögt|möchten?|wollt|willst|wollen)|si vous (?:voulez|le souhaitez|souhaitez)|si tu veux|si (?:quieres|lo deseas|queréis|usted quiere))\b/giu;
/** Whoever reads, or everybody: a subject that narrows nothing. */
const ANYBODY =
  /^(?:you|anyone|anybody|everyone|everybody|all|people|users?|the user|licensees?|the licensee|the (?:buyer|user)|we|i|du|ihr|sie|man|jeder|jede|jedermann|alle|nutzer|lizenznehmer|käufer|vous|tu|on|chacun|tous|tout le monde|l[’']utilisateur|usted(?:es)?|tú|vosotros|cualquiera|todos|uno|(?:el )?(?:usuario|comprador)|el mundo|but)$/iu;
/** Somebody does the using: the words before say who. */
const ACTIVE_USE =
  /^(.*?)\s(?:may|can|could|are (?:welcome|allowed|free|permitted|entitled) to|is (?:welcome|allowed|free|permitted|entitled) to)\s(?:(?:also|freely|then|even|still)\s)*(?:use|print|sell|make|put|set)\b|^(.*?)\s(?:darf|dürfen|kann|können)\b(?=.*\b\p{L}*(?:nutzen|verwenden|einsetzen|drucken|gebrauchen)\b)(?!.*\bwerden\b)|^(.*?)\s(?:peut|peuvent|sont (?:autorisée?s|libres) (?:à|de|d[’']))\s*(?=.*\b(?:utiliser|servir|employer|imprimer)\b)|^(.*?)\s(?:puede|pueden|podrán?)\s(?=\p{L}*(?:usar|utilizar|emplear|imprimir)\p{L}*)/iu;
const ARTICLE = /^(?:so|then|here|hier|also|and|und|et|y|but|aber|mais|pero|the|die|der|das|les?|la|los|las|el)\s+/iu;

const WORD = /[\p{L}\p{M}][\p{L}\p{M}’'-]*/gu;
const FIGURES = /(?<![\p{L}\d.])\d[\d.,]*\s*(?:%|€|\$|£|EUR|USD|GBP)?/u;
/** "One commercial project", "un seul usage": a number before what is permitted. "One of", "this one" are none. */
const NUMBER_WORDS =
  /(?<!(?:this|any|every|each|that|the) )\b(?:one|two|three|four|five|ten|a single|ein(?:e|en)? einzige[nrs]?|zwei|drei|un seul|une seule|deux|trois|una? sol[oa]|dos|tres)\s+(?!of\b)(?=\p{L}+)(?:commercial\p{L}*|kommerziell\p{L}*|gewerblich\p{L}*|comercial\p{L}*|projects?|projekte?|projets?|proyectos?|uses?|usages?|usos?|jobs?|clients?|kunden?|times?|mal|fois|ve(?:z|ces))/iu;
/** Figures that are no limits: years of a copyright, versions, degrees of typefaces. */
const HARMLESS_FIGURES =
  /(?:©|\(c\)|copyright|version|v\.?|release|licen[cs]e|lizenz|licence|licencia|CC|GPL|OFL)[\s:,-]*\p{L}{0,3}[\s-]*\d[\d.,–-]*|\d+\s*(?:styles?|weights?|fonts?|glyphs?|schnitte|graisses|estilos|pesos)|100\s?%|§\s*\d+|\bin (?:19|20)\d\d\s*$|^\s*\d+[.)]/giu;

/**
 * Says what narrows a permission.
 * @param clause - the words that permit, and what stands with them between full stops or turns of the sentence.
 * @returns a word for it, or null when every word is understood and none narrows.
 */
export function findNarrowing(clause: string): "condition" | "person" | "number" | "unknown words" | null {
  const text = clause
    .replace(/[“"„«][^“”"„«»]{0,80}[”"“»]/gu, " ")
    .replace(EVEN_IF, " ")
    .replace(/https?:\/\/\S+|\S+@\S+\.\S+/g, " ")
    .replace(EMPTY_CONDITION, " ")
    .replace(/§private§/g, " private ");
  if (opensCondition(text)) return "condition";
  if (FIGURES.test(text.replace(HARMLESS_FIGURES, " ")) || NUMBER_WORDS.test(text)) return "number";
  const subject = subjectOf(text);
  if (subject !== null && !ANYBODY.test(subject) && !isFont(subject)) return "person";
  return unknownWords(text).length ? "unknown words" : null;
}

/** Of use that earns nothing less is asked: who or when must not be said, the rest may be anything ("birthday cards, the label on jam"). */
export function narrowsPrivate(clause: string): boolean {
  const found = findNarrowing(clause);
  return found === "condition" || (found === "unknown words" && BY_SOMEBODY.test(clause));
}
const BY_SOMEBODY = /\b(?:by|von|durch|par|por)\s+(?:the|our|my|den|unseren|les|nos|los|las|nuestros)?\s*\p{L}{3,}/iu;
const EVEN_IF = /\b(?:even (?:if|when)|auch wenn|selbst wenn|même (?:si|quand)|incluso (?:si|cuando)|aunque)\b/giu;

/** Takes out the parts that state a condition: what they deny or price is no denial or price of the use. */
export const withoutConditions = (clause: string): string => clause.replace(CONDITION_PART, " ");
const CONDITION_PART =
  /(?:^|,\s*)(?:if|provided|as long as|while|wenn|falls|sofern|solange|wer|soweit|si|tant que|pourvu que|mientras|siempre que)\s(?:[^,;.]|\.\d){3,200}(?:,|[.]?\s*$)/giu;

/** Conditions on credit, or on what becomes of the file itself, are read elsewhere. */
function opensCondition(text: string): boolean {
  for (const m of text.matchAll(OPENS_CONDITION)) {
    const rest = text.slice(m.index).split(/[.;]/)[0]!;
    if (!CREDIT.test(rest) && !PASSING_ON.test(rest) && !(SELLING.test(rest) && FONT_ITSELF.test(rest))) return true;
  }
  return false;
}

function subjectOf(text: string): string | null {
  const m = ACTIVE_USE.exec(text.trim());
  const before = m && (m[1] ?? m[2] ?? m[3] ?? m[4]);
  if (before === null || before === undefined) return null;
  // What stands behind the last comma or colon is the subject.
  const own = before
    .split(/[,:(]\s*/)
    .pop()!
    .trim();
  // "With it you": a pronoun at the end is the subject.
  return ANYBODY.exec(own.split(" ").pop()!)?.[0] ?? (own.replace(ARTICLE, "").trim() || null);
}
const isFont = (subject: string) => FONT_ITSELF.test(subject) || /^(?:it|sie|elle|ella|es)$/i.test(subject);

/** Capitalised words before "is", "may be": the font's name, unless they begin with a preposition ("Im Winter ist …"). */
const NAME_BEFORE_VERB =
  /^\s*(\p{Lu}[\p{L}’'-]*)\s+(?:\p{Lu}[\p{L}’'-]*\s+){0,3}(?=(?:grants?|allows?|permits?|gives|gewährt|erlaubt|gestattet|accorde|autorise|permet|concede|permite|autoriza|is|are|costs|(?:may|can) be|ist|sind|darf\s(?=.*\bwerden)|est|sont|peut être|es|son|puede ser)\s(?!(?:the|die|der|das|la|le|les|el|los|las)\s|l[’']))/u;
const PREPOSITION =
  /^(?:in|im|am|an|zum|zur|zu|bei|auf|um|ab|on|at|for|from|by|within|with|during|dans|en|pendant|durant|sur|à|au|aux|por|para|hasta|desde|con|a)$/i;

/** Words of a clause that are neither terms nor harmless. A name at the start, before "is free", is the font's. */
function unknownWords(clause: string): string[] {
  let text = ` ${clause} `
    .replace(NAME_BEFORE_VERB, (whole, first: string) => (PREPOSITION.test(first) ? whole : " "))
    .replace(/\b(us(?:e|ing)|downloading|install(?:ing)?)\s+(?:\p{Lu}[\p{L}’'-]*\s+){1,3}/gu, "$1 ")
    .replace(OPENS_CONDITION, " ");
  for (const known of UNDERSTOOD) text = text.replace(known, " ");
  return (text.match(WORD) ?? [])
    .map((w) => w.toLowerCase().replace(/^(?:l|d|qu|j|n|s|c|m|t)[’']/u, ""))
    .filter((w) => w.length > 1 && !HARMLESS.has(w) && !ABOUT_TERMS.test(w));
}

/** A sentence of its own that says how far a permission goes: "This applies until …". */
const APPLIES =
  /\b(?:this|that|the (?:offer|licen[cs]e|permission)|it)\s(?:\p{L}+\s)?(?:applies|is valid|lasts|ends|expires|holds|covers|counts|is limited)\b|\b(?:dies|das|die (?:erlaubnis|lizenz)|das angebot)\s(?:gilt|endet|läuft|beschränkt)|\b(?:ceci|cela|cette (?:offre|licence|autorisation)|l[’']offre)\s(?:vaut|s[’']applique|expire|est (?:valable|limitée?))|\b(?:esto|esta (?:oferta|licencia)|la oferta|el permiso)\s(?:vale|se aplica|caduca|termina|es v[áa]lid[oa])/iu;

/** @returns whether a sentence narrows what others grant. */
export const narrowsOthers = (sentence: string): boolean => APPLIES.test(sentence) && findNarrowing(sentence) !== null;
