// What standard licences allow, use by use, and the sentence each verdict rests on. A data table.
// Sources: the licence texts as listed by SPDX.
import type { Use, Verdict } from "@/contracts/traits";

type LicenceRule = { uses: readonly Use[]; verdict: Verdict; sentence: RegExp };

const SET_IN_TYPE: Use[] = ["private", "client-print", "goods-for-sale", "video", "cutting", "logo"];
const FILES_PASSED_ON: Use[] = ["web", "app"];
const ALL: Use[] = [...SET_IN_TYPE, ...FILES_PASSED_ON];
const EARNING: Use[] = ALL.filter((u) => u !== "private");

/** Set in type freely; the notice goes with the file. @param freely, notice - wordings, the strongest first. */
const permissive = (freely: RegExp, notice: RegExp): LicenceRule[] => [
  { uses: SET_IN_TYPE, verdict: "cleared", sentence: freely },
  { uses: FILES_PASSED_ON, verdict: "cleared-with-credit", sentence: notice },
];

/** Uses that leave the letters as they come. */
const UNCHANGED: Use[] = ["private", "client-print", "goods-for-sale", "video"];

const CC_CREDIT = /retain the following|attribution|must keep intact all copyright notices|give appropriate credit/i;
const CC_NC = /NonCommercial purposes only|Non-?Commercial|commercial advantage/i;

/** Rules by SPDX id; the first pattern that fits holds. */
const RULES: [RegExp, LicenceRule[]][] = [
  [
    /^OFL-/,
    permissive(
      /does not apply to any document created|free of charge, to any person obtaining a copy of the Font Software|may be used, studied, modified/i,
      /each copy contains the above copyright notice and this license|can be bundled, embedded, redistributed/i,
    ),
  ],
  [
    /^Apache-2/,
    permissive(
      /perpetual,\s+worldwide,\s+non-exclusive,\s+no-charge,\s+royalty-free,\s+irrevocable\s+copyright\s+license/i,
      /You must give any other recipients/i,
    ),
  ],
  [
    /^Ubuntu-font/,
    permissive(
      /does not apply to any document created/i,
      /Each copy[^.]*must contain|copyright notice and this licence/i,
    ),
  ],
  [
    /^(MIT|BSD|ISC|Zlib|Bitstream-Vera|mplus)/,
    permissive(
      /without restriction|with or without modification|free of charge|Permission to use/i,
      /shall be included in all copies|retain the above copyright notice|copyright notice/i,
    ),
  ],
  [
    /^(CC0|Unlicense|WTFPL|LicenseRef-public-domain)/,
    [
      {
        uses: ALL,
        verdict: "cleared",
        sentence: /waives|for any purpose, commercial or non-commercial|public domain|do what/i,
      },
    ],
  ],
  [
    /^CC-BY-NC/,
    [
      { uses: ["private"], verdict: "cleared-with-credit", sentence: CC_CREDIT },
      { uses: EARNING, verdict: "not-for-this-use", sentence: CC_NC },
    ],
  ],
  [
    /^CC-BY-ND/,
    [
      { uses: UNCHANGED, verdict: "cleared-with-credit", sentence: CC_CREDIT },
      // A logo is hardly ever set in letters as they come; cutting joins and traces them; the web takes subsets in other formats.
      {
        uses: ALL.filter((u) => !UNCHANGED.includes(u)),
        verdict: "ask-maker",
        sentence: /NoDerivatives|Adapted Material|Derivative/i,
      },
    ],
  ],
  [/^CC-BY/, [{ uses: ALL, verdict: "cleared-with-credit", sentence: CC_CREDIT }]],
  [
    /^L?GPL-.*Font-exception/,
    [
      { uses: SET_IN_TYPE, verdict: "cleared", sentence: /does not by itself cause the resulting document/i },
      {
        uses: ["web"],
        verdict: "cleared-with-credit",
        sentence: /copyright notice|conspicuously|appropriate copyright notice/i,
      },
      { uses: ["app"], verdict: "ask-maker", sentence: /combined work|based on the Program|convey a work/i },
    ],
  ],
  [
    /^L?GPL-/,
    [
      {
        uses: SET_IN_TYPE,
        verdict: "cleared",
        sentence:
          /output from the Program is covered only if|output from running a covered work|The act of running the Program is not restricted/i,
      },
      { uses: FILES_PASSED_ON, verdict: "ask-maker", sentence: /based on the Program|combined work|covered work/i },
    ],
  ],
  [
    /^(IPA|Arphic)/,
    [
      { uses: SET_IN_TYPE, verdict: "cleared", sentence: /Digital Content|use|copy/i },
      { uses: FILES_PASSED_ON, verdict: "ask-maker", sentence: /redistribut|distribut/i },
    ],
  ],
];

/** Rules of a recognised licence; null for an id we have none for. */
export const rulesOf = (spdx: string): LicenceRule[] | null => RULES.find(([id]) => id.test(spdx))?.[1] ?? null;
