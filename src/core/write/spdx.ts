// The licences of a set of fonts as an SPDX 2.3 document in JSON. Source: SPDX Specification 2.3, clauses 6 to 11.

type SpdxFont = {
  id: string;
  name: string;
  version: string | null;
  supplier: string | null;
  originator: string | null;
  fileName: string;
  sha256: string;
  /** SPDX id or expression that was recognised; null when none was. */
  licence: string | null;
  copyright: string | null;
  /** Terms word for word: extracted licensing information where no listed licence was recognised. */
  texts: { source: string; text: string }[];
  comment: string;
};

const NONE = "NOASSERTION";
const refOf = (id: string) => id.replace(/[^A-Za-z0-9.-]/g, "-");

/**
 * Writes the document.
 * @param about - createdAt: ISO with seconds. The namespace is unique by brief, time and content of the list.
 * @returns JSON text. A font without a recognised licence refers to its own texts; without any, NOASSERTION.
 */
export function writeSpdx(about: { name: string; id: string; createdAt: string }, fonts: SpdxFont[]): string {
  const created = about.createdAt.replace(/\.\d+Z$/, "Z");
  const extracted: { licenseId: string; extractedText: string; name: string }[] = [];
  const licenceOf = (f: SpdxFont): string => {
    if (f.licence && !f.licence.startsWith("LicenseRef-")) return f.licence;
    if (!f.texts.length) return NONE;
    const licenseId = f.licence ? refOf(f.licence) : `LicenseRef-${refOf(f.id)}`;
    if (!extracted.some((e) => e.licenseId === licenseId))
      extracted.push({
        licenseId,
        name: f.licence ? f.licence.replace("LicenseRef-", "").replace(/-/g, " ") : `Terms of ${f.name}`,
        extractedText: f.texts.map((t) => `${t.source}:\n${t.text}`).join("\n\n"),
      });
    return licenseId;
  };
  const packages = fonts.map((f) => {
    const licence = licenceOf(f);
    return {
      SPDXID: `SPDXRef-${refOf(f.id)}`,
      name: f.name,
      ...(f.version && { versionInfo: f.version }),
      packageFileName: f.fileName,
      ...(f.supplier && { supplier: `Organization: ${f.supplier}` }),
      ...(f.originator && { originator: `Person: ${f.originator}` }),
      downloadLocation: NONE,
      filesAnalyzed: false,
      checksums: [{ algorithm: "SHA256", checksumValue: f.sha256 }],
      licenseConcluded: licence,
      licenseDeclared: f.licence && !f.licence.startsWith("LicenseRef-") ? f.licence : licence,
      copyrightText: f.copyright ?? NONE,
      licenseComments: f.comment,
    };
  });
  return JSON.stringify(
    {
      spdxVersion: "SPDX-2.3",
      dataLicense: "CC0-1.0",
      SPDXID: "SPDXRef-DOCUMENT",
      name: about.name,
      documentNamespace: `https://fond-quarry.invalid/spdx/${encodeURIComponent(about.id)}/${created}`,
      creationInfo: {
        created,
        creators: ["Tool: Fond Quarry"],
        comment: "Licences were read by rules as a reading aid; this is not legal advice.",
      },
      packages,
      ...(extracted.length && { hasExtractedLicensingInfos: extracted }),
      relationships: packages.map((p) => ({
        spdxElementId: "SPDXRef-DOCUMENT",
        relationshipType: "DESCRIBES",
        relatedSpdxElement: p.SPDXID,
      })),
    },
    null,
    2,
  );
}
