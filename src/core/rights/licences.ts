// Licences that are recognised by their own wording, and the sentence each verdict rests on. A data table.
// Sources: the licence texts as listed by SPDX.
import type { Use, Verdict } from "@/contracts/traits";

export type KnownLicence = {
  spdx: string;
  name: string;
  /** Wordings that stand in this licence (or in a reference to it) and in no other. */
  marks: RegExp[];
  /** Uses in one group share a verdict and the sentence that supports it. */
  rules: { uses: Use[]; verdict: Verdict; sentence: RegExp }[];
};

const SET_IN_TYPE: Use[] = ["private", "client-print", "goods-for-sale", "video", "cutting", "logo"];
const FILES_PASSED_ON: Use[] = ["web", "app"];

export const KNOWN_LICENCES: KnownLicence[] = [
  {
    spdx: "OFL-1.1",
    name: "SIL Open Font License 1.1",
    marks: [/SIL OPEN FONT LICENSE/i, /scripts\.sil\.org\/OFL/i, /openfontlicense\.org/i],
    rules: [
      {
        uses: SET_IN_TYPE,
        verdict: "cleared",
        sentence:
          /does not apply to any document created|free of charge, to any person obtaining a copy of the Font Software|SIL Open Font License|scripts\.sil\.org\/OFL/i,
      },
      {
        uses: FILES_PASSED_ON,
        verdict: "cleared-with-credit",
        sentence:
          /each copy contains the above copyright notice and this license|SIL Open Font License|scripts\.sil\.org\/OFL/i,
      },
    ],
  },
  {
    spdx: "Apache-2.0",
    name: "Apache License 2.0",
    marks: [/Apache License,?\s+Version 2\.0/i, /apache\.org\/licenses\/LICENSE-2\.0/i],
    rules: [
      {
        uses: SET_IN_TYPE,
        verdict: "cleared",
        sentence:
          /perpetual,\s+worldwide,\s+non-exclusive,\s+no-charge,\s+royalty-free,\s+irrevocable\s+copyright\s+license|Apache License/i,
      },
      {
        uses: FILES_PASSED_ON,
        verdict: "cleared-with-credit",
        sentence: /You must give any other recipients[^.]*a copy of this License|Apache License/i,
      },
    ],
  },
  {
    spdx: "Ubuntu-font-1.0",
    name: "Ubuntu Font Licence 1.0",
    marks: [/UBUNTU FONT LICENCE/i],
    rules: [
      {
        uses: SET_IN_TYPE,
        verdict: "cleared",
        sentence: /does not apply to any document created|Ubuntu Font Licence/i,
      },
      {
        uses: FILES_PASSED_ON,
        verdict: "cleared-with-credit",
        sentence: /Each copy[^.]*must contain|Ubuntu Font Licence/i,
      },
    ],
  },
  {
    spdx: "MIT",
    name: "MIT License",
    marks: [/\bMIT License\b/i, /to deal in the Software without restriction/i],
    rules: [
      { uses: SET_IN_TYPE, verdict: "cleared", sentence: /without restriction|MIT License/i },
      {
        uses: FILES_PASSED_ON,
        verdict: "cleared-with-credit",
        sentence: /shall be included in all copies|MIT License/i,
      },
    ],
  },
  {
    spdx: "CC0-1.0",
    name: "Creative Commons Zero 1.0",
    marks: [/CC0 1\.0 Universal/i, /creativecommons\.org\/publicdomain\/zero/i],
    rules: [
      { uses: [...SET_IN_TYPE, ...FILES_PASSED_ON], verdict: "cleared", sentence: /waives|CC0|publicdomain\/zero/i },
    ],
  },
];
