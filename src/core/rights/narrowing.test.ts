// Conditions put into grants at every place of a sentence: none of them may leave it cleared. What is tried is made, not collected.
import { describe, expect, test } from "@jest/globals";
import { findNarrowing } from "./narrowing";
import { readRights } from "./readRights";

const GRANTS: Record<string, string[]> = {
  en: [
    "Commercial use is free",
    "Free for commercial use",
    "You may use this font commercially",
    "This font is free for personal and commercial use",
    "You can sell products made with it",
    "Use it for any purpose",
    "It may be used commercially",
  ],
  de: [
    "Die kommerzielle Nutzung ist frei",
    "Kostenlos für kommerzielle Nutzung",
    "Du darfst die Schrift kommerziell nutzen",
    "Die Schrift darf gewerblich verwendet werden",
    "Frei für private und kommerzielle Zwecke",
    "Die gewerbliche Verwendung ist gestattet",
  ],
  fr: [
    "L’usage commercial est libre",
    "Gratuit pour un usage commercial",
    "Vous pouvez l’utiliser commercialement",
    "Utilisation commerciale autorisée",
    "La police est gratuite pour un usage personnel et commercial",
  ],
  es: [
    "El uso comercial es libre",
    "Gratis para uso comercial",
    "Puedes usarla comercialmente",
    "Se permite el uso comercial",
    "La fuente es gratuita para uso personal y comercial",
  ],
};
const CONDITIONS: Record<string, string[]> = {
  en: [
    "while the exhibition lasts",
    "during the festival",
    "for members of the guild",
    "until the end of May",
    "in Scotland",
    "for the first fifty buyers",
    "if you are a student",
    "on Sundays",
    "for small firms",
    "below 500 copies",
    "this summer",
    "at the harbour",
    "by lifeboat executors",
    "for one year",
    "in black and white",
    "on paper only",
    "with our consent",
    "after registering",
    "once you have joined",
    "for schools",
    "among friends",
    "in moderation",
    "as agreed",
    "on request",
    "subject to approval",
  ],
  de: [
    "solange die Ausstellung läuft",
    "während des Festes",
    "für Mitglieder der Gilde",
    "bis Ende Mai",
    "in Schottland",
    "für die ersten fünfzig Käufer",
    "wenn du studierst",
    "sonntags",
    "für kleine Betriebe",
    "unter 500 Stück",
    "diesen Sommer",
    "am Hafen",
    "durch Rettungsleute",
    "ein Jahr lang",
    "nach Anmeldung",
    "für Schulen",
    "unter Freunden",
    "auf Anfrage",
    "mit unserer Zustimmung",
    "vorerst",
    "in Maßen",
  ],
  fr: [
    "tant que dure l’exposition",
    "pendant la fête",
    "pour les membres de la guilde",
    "jusqu’à fin mai",
    "en Écosse",
    "pour les cinquante premiers acheteurs",
    "si vous êtes étudiant",
    "le dimanche",
    "pour les petites entreprises",
    "sous 500 exemplaires",
    "cet été",
    "au port",
    "par les sauveteurs",
    "pendant un an",
    "après inscription",
    "pour les écoles",
    "entre amis",
    "sur demande",
    "avec notre accord",
    "pour l’instant",
    "avec modération",
  ],
  es: [
    "mientras dure la exposición",
    "durante la fiesta",
    "para los miembros del gremio",
    "hasta finales de mayo",
    "en Escocia",
    "para los primeros cincuenta compradores",
    "si eres estudiante",
    "los domingos",
    "para pequeñas empresas",
    "por debajo de 500 copias",
    "este verano",
    "en el puerto",
    "por los socorristas",
    "durante un año",
    "tras registrarse",
    "para escuelas",
    "entre amigos",
    "previa solicitud",
    "con nuestro acuerdo",
    "por ahora",
    "con moderación",
  ],
};
const EARNING = ["client-print", "goods-for-sale", "video", "logo"] as const;
const isCleared = (text: string) => {
  const { verdicts } = readRights([{ kind: "readme", source: "readme.txt", date: "2026-11-25", text }]);
  return EARNING.some((use) => verdicts[use].verdict.startsWith("cleared"));
};
const capital = (s: string) => s[0]!.toUpperCase() + s.slice(1);
const small = (s: string) => s[0]!.toLowerCase() + s.slice(1);
const PLACES: [string, (grant: string, condition: string) => string][] = [
  ["behind", (g, c) => `${g} ${c}.`],
  ["behind a comma", (g, c) => `${g}, ${c}.`],
  ["before", (g, c) => `${capital(c)} ${small(g)}.`],
  ["before a comma", (g, c) => `${capital(c)}, ${small(g)}.`],
  ["in brackets", (g, c) => `${g} (${c}).`],
  ["behind a dash", (g, c) => `${g} – ${c}.`],
  ["behind a semicolon", (g, c) => `${g}; ${c}.`],
  ["before a colon", (g, c) => `${capital(c)}: ${g}.`],
  ["over a list", (g, c) => `${capital(c)}:\n- ${g}.`],
];

describe("a condition anywhere in a sentence", () => {
  for (const language of Object.keys(GRANTS)) {
    test(`${language}: without one the grants are cleared`, () => {
      expect(GRANTS[language]!.filter((g) => !isCleared(`${g}.`))).toEqual([]);
    });
    test.each(PLACES)(`${language}, %s: none is cleared`, (place, put) => {
      // One word over a list may as well be the font's name.
      const said = CONDITIONS[language]!.filter((c) => place !== "over a list" || c.includes(" "));
      const texts = GRANTS[language]!.flatMap((g) => said.map((c) => put(g, c)));
      expect(texts.filter(isCleared)).toEqual([]);
    });
  }
});

test("a name before the verb is the font's, unless the sentence has a subject of its own", () => {
  expect(findNarrowing("Saltmarsh is free for any purpose")).toBeNull();
  expect(findNarrowing("Handwerksbetrieben ist die gewerbliche Verwendung gestattet")).not.toBeNull();
});
