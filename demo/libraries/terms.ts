// The terms that the stand-in libraries' fonts come with, in the voices of their made-up makers. Mixed, missing, contradicting.

export const PERSONAL_EN = `WRACKLINE SCRIPT
drawn by Maud Penhallow, Inkpot & Tern

This font is free for personal use: invitations, school work, a note on the door.
If you would like to earn money with it, please purchase a licence from me first.

Swashes: turn on the feature "swsh", or pick them from the private use area (U+E000 and up).
`;

export const SHAREWARE_DE = `LIESMICH

Driftcask, gezeichnet von Hinnerk Volquardsen, Kontor Flutmarke.

Für private Zwecke ist die Schrift kostenlos. Für gewerbliche Projekte bitte vorher anfragen.
Die Dateien dürfen nicht verändert oder weitergegeben werden.
`;

export const ASK_FIRST_DE = `Bytebuoy

Private Nutzung ist frei. Wer die Schrift auf Waren drucken möchte, die verkauft werden, braucht dafür meine schriftliche Genehmigung.

Antje Lorenzen, Werkbank Nordmole
`;

export const CREDIT_FR = `LISEZ-MOI

Netfloat Dots, dessinée par Solène Kerviel.

Utilisation libre, personnelle et commerciale, à condition de mentionner le nom de la dessinatrice.
La revente du fichier est interdite.
`;

export const FREE_ES = `LÉAME

Saltgrit, tipografía de Nuria Salobral (Taller Marea Viva).

Gratis para uso personal y comercial. No se permite vender ni redistribuir el archivo de la fuente.
Se agradece un donativo, pero no es necesario.
`;

export const PERSONAL_ONLY_EN = `LICENCE
Gangway may be used for personal purposes only.
Commercial use is not permitted without the prior written permission of Hinnerk Volquardsen.
`;

export const WEATHER_RTF = `{\\rtf1\\ansi{\\fonttbl\\f0 Courier;}\\f0 Weatherglass Signs\\par
Solène Kerviel grants everyone the right to use these signs for any purpose, private or commercial.\\par
A credit is appreciated but not required.\\par}`;

export const BREAKWATER_HTML = `<html><head><title>Licence</title></head><body>
<h1>Breakwater Wide</h1>
<p>You may:</p><ul><li>use the fonts in print</li><li>use the fonts in films and videos</li><li>cut the letters from vinyl</li></ul>
<p>You may not:</p><ul><li>use the fonts in logos or trademarks</li><li>embed the fonts in apps or games</li></ul>
</body></html>`;

export const ADZE_README = `Adzemark

Thank you for downloading! Unzip the folder and install the files.
The capitals follow the marks that boat builders left in the oak.
`;

/** What a licence of the shop says, for the uses that were bought. @param uses - in words, as "print", "goods for sale". */
export const shopLicence = (
  buyer: string,
  names: string[],
  bought: string[],
  left: string[],
) => `HALYARD & LENS TYPE FOUNDRY
Licence

Licensed to: ${buyer}
Fonts: ${names.join(", ")}

This licence permits use for: ${bought.join(", ")}.
${left.length ? `A separate licence must be purchased for: ${left.join(", ")}.\n` : ""}The font files may not be passed on, sold or changed.
`;
