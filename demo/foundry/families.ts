// The families of the made-up foundry, a data table: every design parameter of every style. All names are made up.
import { SANS, type Design } from "./design";
import type { FaceOptions } from "./face";
import type { PictureSet } from "./specialFaces";

export type StylePlan = {
  style: string;
  weightClass: number;
  widthClass: number;
  design: Design;
  options?: FaceOptions;
};
export type FamilyPlan = {
  family: string;
  /** Which stand-in library offers it. */
  library: "commons" | "ropewalk" | "halyard";
  maker: string;
  designer: string;
  draws: "letters" | "script" | PictureSet | "variable";
  styles: StylePlan[];
  /** OS/2 fsType: 0 installable, 2 restricted, 4 preview and print, 8 editable. */
  fsType: number;
  /** Name strings 0, 13 and 14, where the maker filled them in. */
  copyright?: string;
  licence?: string;
  licenceUrl?: string;
  vendor: string;
};

const OFL_NAME = {
  licence: "This Font Software is licensed under the SIL Open Font License, Version 1.1.",
  licenceUrl: "https://openfontlicense.org",
};

/** What all faces of one library share. */
const COMMONS = { library: "commons", maker: "Tidewrack Commons", fsType: 0, vendor: "TWRK" } as const;
const HALYARD = {
  library: "halyard",
  maker: "Halyard & Lens",
  fsType: 4,
  vendor: "HLLN",
  licence: "This font is licensed, not sold. See the licence that came with your receipt.",
} as const;

const design = (over: Partial<Design>): Design => ({ ...SANS, ...over });
type Step = [style: string, weightClass: number, stem: number, thin: number];

/** One style per weight; with `slantDeg`, an italic beside each. */
function weights(base: Partial<Design>, steps: Step[], slantDeg = 0, rest: Partial<StylePlan> = {}): StylePlan[] {
  const make = (name: string, weightClass: number, stem: number, thin: number, lean: number): StylePlan => ({
    style: name,
    weightClass,
    widthClass: 5,
    ...rest,
    design: design({ ...base, stem, thin, slantDeg: lean }),
  });
  const italicOf = (name: string) => (name === "Regular" ? "Italic" : `${name} Italic`);
  return steps.flatMap(([name, weightClass, stem, thin]) => [
    make(name, weightClass, stem, thin, base.slantDeg ?? 0),
    ...(slantDeg ? [make(italicOf(name), weightClass, stem, thin, slantDeg)] : []),
  ]);
}

const SLAB = { serif: "slab", serifLength: 44, serifThickness: 62, xHeight: 500 } as const;
const TEXT = {
  serif: "bracketed",
  serifLength: 38,
  serifThickness: 26,
  xHeight: 460,
  capHeight: 660,
  ascender: 720,
} as const;
const HAIRLINE = {
  serif: "hairline",
  serifLength: 46,
  serifThickness: 20,
  xHeight: 450,
  capHeight: 690,
  ascender: 730,
} as const;

export const FAMILIES: FamilyPlan[] = [
  // The open collection.
  {
    family: "Skerrow Sans",
    ...COMMONS,
    designer: "Ida Marrable",
    draws: "letters",
    copyright: "Copyright 2025 The Skerrow Sans Authors",
    ...OFL_NAME,
    styles: weights(
      {},
      [
        ["Light", 300, 56, 52],
        ["Regular", 400, 84, 76],
        ["Medium", 500, 104, 92],
        ["Bold", 700, 142, 120],
        ["Black", 900, 188, 148],
      ],
      9,
    ),
  },
  {
    family: "Marram Slab",
    ...COMMONS,
    designer: "Piet Sandvoort",
    draws: "letters",
    copyright: "Copyright 2024 The Marram Slab Authors",
    ...OFL_NAME,
    styles: weights(SLAB, [
      ["Light", 300, 54, 48],
      ["Regular", 400, 80, 68],
      ["Bold", 700, 134, 104],
      ["Black", 900, 176, 128],
    ]),
  },
  {
    family: "Holmgate Text",
    ...COMMONS,
    designer: "Runa Ellingsgard",
    draws: "letters",
    copyright: "Copyright 2025 The Holmgate Authors",
    ...OFL_NAME,
    styles: [
      ...weights(TEXT, [["Regular", 400, 82, 40]], 11, { options: { smallCapitals: true, oldStyleFigures: true } }),
      ...weights(TEXT, [["Bold", 700, 132, 54]], 0, { options: { smallCapitals: true, oldStyleFigures: true } }),
    ],
  },
  {
    family: "Lampkeeper Mono",
    ...COMMONS,
    designer: "Ida Marrable",
    draws: "letters",
    copyright: "Copyright 2023 The Lampkeeper Mono Authors",
    ...OFL_NAME,
    styles: weights({ monospaced: 600, xHeight: 520, serif: "none" }, [
      ["Light", 300, 52, 48],
      ["Regular", 400, 78, 70],
      ["Bold", 700, 118, 98],
    ]),
  },
  {
    family: "Fairlead Flex",
    ...COMMONS,
    designer: "Piet Sandvoort",
    draws: "variable",
    copyright: "Copyright 2026 The Fairlead Flex Authors",
    ...OFL_NAME,
    styles: [
      { style: "Regular", weightClass: 400, widthClass: 5, design: design({ stem: 84, thin: 76, xHeight: 500 }) },
    ],
  },
  {
    family: "Bulkhead Stencil",
    ...COMMONS,
    designer: "Oda Kjerringvik",
    draws: "letters",
    copyright: "Copyright 2022 Oda Kjerringvik",
    licence: "Licensed under the Apache License, Version 2.0",
    licenceUrl: "https://www.apache.org/licenses/LICENSE-2.0",
    styles: weights({ treatment: "stencil", xHeight: 530 }, [
      ["Regular", 400, 92, 84],
      ["Bold", 700, 150, 126],
    ]),
  },
  {
    family: "Pebbleway Round",
    ...COMMONS,
    designer: "Suse Ahlbeck",
    draws: "letters",
    copyright: "No rights reserved. Suse Ahlbeck, 2024.",
    licence: "CC0 1.0 Universal (CC0 1.0) Public Domain Dedication",
    licenceUrl: "https://creativecommons.org/publicdomain/zero/1.0/",
    styles: weights({ terminal: "round", storeys: 1, xHeight: 500, width: 1.06 }, [
      ["Light", 300, 60, 60],
      ["Regular", 400, 88, 88],
      ["Bold", 700, 138, 132],
    ]),
  },
  {
    family: "Skerrow Seamarks",
    ...COMMONS,
    designer: "Suse Ahlbeck",
    draws: "sea",
    copyright: "No rights reserved. Suse Ahlbeck, 2024.",
    licence: "CC0 1.0 Universal (CC0 1.0) Public Domain Dedication",
    styles: [{ style: "Regular", weightClass: 400, widthClass: 5, design: design({ stem: 44, thin: 44 }) }],
  },
  // The street of makers.
  {
    family: "Wrackline Script",
    library: "ropewalk",
    maker: "Inkpot & Tern",
    designer: "Maud Penhallow",
    draws: "script",
    fsType: 4,
    vendor: "INKT",
    copyright: "(c) 2024 Maud Penhallow. All rights reserved.",
    styles: weights(
      { xHeight: 380, capHeight: 640, ascender: 740, descender: -300, slantDeg: 18, terminal: "round", width: 1.05 },
      [
        ["Regular", 400, 50, 34],
        ["Bold", 700, 82, 50],
      ],
    ),
  },
  {
    family: "Driftcask",
    library: "ropewalk",
    maker: "Kontor Flutmarke",
    designer: "Hinnerk Volquardsen",
    draws: "letters",
    fsType: 0,
    vendor: "KFLU",
    styles: weights({ ...SLAB, treatment: "rough", seed: 11 }, [
      ["Regular", 400, 92, 80],
      ["Bold", 700, 146, 116],
    ]),
  },
  {
    family: "Bytebuoy",
    library: "ropewalk",
    maker: "Werkbank Nordmole",
    designer: "Antje Lorenzen",
    draws: "letters",
    fsType: 0,
    vendor: "NORD",
    copyright: "2023 Antje Lorenzen",
    licence: "Frei für private und kommerzielle Nutzung.",
    styles: weights({ treatment: "pixel", xHeight: 500, capHeight: 700, ascender: 700, descender: -200 }, [
      ["Regular", 400, 100, 100],
    ]),
  },
  {
    family: "Netfloat Dots",
    library: "ropewalk",
    maker: "Atelier Brise-Houle",
    designer: "Solène Kerviel",
    draws: "letters",
    fsType: 0,
    vendor: "BHOU",
    styles: weights({ treatment: "dotted", xHeight: 510 }, [["Regular", 400, 62, 62]]),
  },
  {
    family: "Brassrail Inline",
    library: "ropewalk",
    maker: "Inkpot & Tern",
    designer: "Maud Penhallow",
    draws: "letters",
    fsType: 2,
    vendor: "INKT",
    copyright: "(c) 2021 Maud Penhallow. All rights reserved.",
    styles: weights(
      { treatment: "inline", capitalsOnly: true, xHeight: 700, width: 1.08 },
      [["Regular", 700, 150, 132]],
      0,
      { options: { without: "&@" } },
    ),
  },
  {
    family: "Saltgrit",
    library: "ropewalk",
    maker: "Taller Marea Viva",
    designer: "Nuria Salobral",
    draws: "letters",
    fsType: 0,
    vendor: "TMVI",
    copyright: "Nuria Salobral, 2022",
    styles: weights(
      { treatment: "rough", seed: 29, storeys: 1 },
      [
        ["Regular", 400, 96, 88],
        ["Heavy", 800, 168, 140],
      ],
      0,
      { options: { without: "&+" } },
    ),
  },
  {
    family: "Railyard Signs",
    library: "ropewalk",
    maker: "Werkbank Nordmole",
    designer: "Antje Lorenzen",
    draws: "rail",
    fsType: 0,
    vendor: "NORD",
    styles: [{ style: "Regular", weightClass: 400, widthClass: 5, design: design({ stem: 50, thin: 50 }) }],
  },
  {
    family: "Weatherglass Signs",
    library: "ropewalk",
    maker: "Atelier Brise-Houle",
    designer: "Solène Kerviel",
    draws: "weather",
    fsType: 0,
    vendor: "BHOU",
    styles: [{ style: "Regular", weightClass: 400, widthClass: 5, design: design({ stem: 40, thin: 40 }) }],
  },
  {
    family: "Gangway",
    library: "ropewalk",
    maker: "Kontor Flutmarke",
    designer: "Hinnerk Volquardsen",
    draws: "letters",
    fsType: 0,
    vendor: "KFLU",
    copyright: "Hinnerk Volquardsen 2024",
    licence: "Freeware",
    styles: weights(
      { width: 0.62, xHeight: 540 },
      [
        ["Light", 300, 52, 50],
        ["Regular", 400, 76, 70],
        ["Bold", 700, 122, 104],
      ],
      0,
      { widthClass: 3 },
    ),
  },
  {
    family: "Breakwater Wide",
    library: "ropewalk",
    maker: "Old Mole Letters",
    designer: "Gethin Trewavas",
    draws: "letters",
    fsType: 8,
    vendor: "OMLT",
    copyright: "Copyright Gethin Trewavas",
    styles: weights(
      { width: 1.5, xHeight: 520 },
      [
        ["Regular", 400, 90, 78],
        ["Bold", 700, 150, 118],
      ],
      10,
      { widthClass: 7 },
    ),
  },
  {
    family: "Adzemark",
    library: "ropewalk",
    maker: "Old Mole Letters",
    designer: "Gethin Trewavas",
    draws: "letters",
    fsType: 8,
    vendor: "OMLT",
    copyright: "Copyright Gethin Trewavas",
    styles: weights(
      { serif: "wedge", serifLength: 34, serifThickness: 40, xHeight: 480 },
      [
        ["Regular", 400, 86, 56],
        ["Bold", 700, 138, 80],
      ],
      0,
    ),
  },
  // The foundry shop.
  {
    family: "Lanternrose",
    ...HALYARD,
    designer: "Cosima Wrede",
    draws: "letters",
    copyright: "Copyright 2025 Halyard & Lens Type Foundry. All rights reserved.",
    styles: weights(
      HAIRLINE,
      [
        ["Light", 300, 62, 18],
        ["Regular", 400, 92, 20],
        ["Bold", 700, 146, 24],
      ],
      13,
    ),
  },
  {
    family: "Moorline",
    ...HALYARD,
    designer: "Jonas Tideswell",
    draws: "letters",
    copyright: "Copyright 2024 Halyard & Lens Type Foundry. All rights reserved.",
    styles: weights(
      { xHeight: 530, terminal: "level", squareness: 0.6 },
      [
        ["Light", 300, 54, 48],
        ["Regular", 400, 80, 70],
        ["Bold", 700, 134, 108],
        ["Black", 900, 178, 134],
      ],
      10,
    ),
  },
  {
    family: "Fathomworth",
    ...HALYARD,
    designer: "Cosima Wrede",
    draws: "letters",
    copyright: "Copyright 2023 Halyard & Lens Type Foundry. All rights reserved.",
    styles: weights(
      { ...TEXT, xHeight: 480, serifLength: 42 },
      [
        ["Book", 400, 78, 44],
        ["Medium", 500, 98, 50],
        ["Bold", 700, 138, 62],
      ],
      12,
      { options: { oldStyleFigures: true } },
    ),
  },
  {
    family: "Squarerig",
    ...HALYARD,
    designer: "Jonas Tideswell",
    draws: "letters",
    copyright: "Copyright 2026 Halyard & Lens Type Foundry. All rights reserved.",
    styles: weights({ squareness: 0.84, xHeight: 530, width: 1.08 }, [
      ["Light", 300, 50, 50],
      ["Regular", 400, 78, 74],
      ["Bold", 700, 130, 112],
      ["Black", 900, 170, 136],
    ]),
  },
  {
    family: "Swellhand",
    ...HALYARD,
    designer: "Maïa Corentin",
    draws: "script",
    copyright: "Copyright 2025 Halyard & Lens Type Foundry. All rights reserved.",
    styles: weights(
      { xHeight: 360, capHeight: 620, ascender: 760, descender: -320, slantDeg: 24, terminal: "round", width: 0.9 },
      [
        ["Regular", 400, 40, 26],
        ["Bold", 700, 66, 38],
      ],
    ),
  },
  {
    family: "Figurehead Titling",
    ...HALYARD,
    designer: "Cosima Wrede",
    draws: "letters",
    copyright: "Copyright 2022 Halyard & Lens Type Foundry. All rights reserved.",
    styles: weights(
      { capitalsOnly: true, xHeight: 700, width: 1.3, serif: "wedge", serifLength: 30, serifThickness: 30 },
      [
        ["Regular", 400, 80, 44],
        ["Bold", 700, 130, 66],
      ],
    ),
  },
];
