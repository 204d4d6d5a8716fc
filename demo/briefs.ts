// The four briefs of the made-up Skerrow Light Trust, which restores a lighthouse.
import { BriefFields } from "../src/contracts/brief";

const CLIENT = "Skerrow Light Trust";

export const DEMO_BRIEFS = [
  {
    briefId: "b_open-night-poster",
    fields: BriefFields.parse({
      name: "Open Night poster",
      client: CLIENT,
      medium: "Poster, A2, and enamel mugs in the shop",
      note: "Sturdy and warm, readable across the quay. The mugs are sold.",
      lines: [
        { text: "Skerrow Light", role: "title" },
        { text: "Open Night", role: "second" },
        { text: "12 lamps & one tide", role: "text" },
      ],
      uses: ["client-print", "goods-for-sale"],
      size: 84,
      unit: "mm",
    }),
  },
  {
    briefId: "b_keepers-of-the-lamp",
    fields: BriefFields.parse({
      name: "Keepers of the Lamp",
      client: CLIENT,
      medium: "Documentary titles, 1920 × 1080",
      note: "Weight contrast between the two lines; must hold over fog.",
      lines: [
        { text: "Keepers of the Lamp", role: "title" },
        { text: "Part 3: Fog + Brass", role: "second" },
      ],
      uses: ["video"],
      size: 120,
      unit: "px",
      levelBy: "capitals",
      ink: "#FBF9F4",
      paper: "#20262B",
    }),
  },
  {
    briefId: "b_hull-letters",
    fields: BriefFields.parse({
      name: "Hull letters",
      client: CLIENT,
      medium: "Cut vinyl on a painted hull",
      note: "No stroke under 4 mm at this size.",
      lines: [{ text: "Wren & Tern No. 7", role: "title" }],
      uses: ["cutting", "goods-for-sale"],
      size: 180,
      unit: "mm",
      levelBy: "capitals",
      ink: "#1C6B74",
      paper: "#FBF9F4",
    }),
  },
  {
    briefId: "b_tide-tables",
    fields: BriefFields.parse({
      name: "Tide tables",
      client: CLIENT,
      medium: "Booklet, A6",
      note: "Figures stand in columns: they must be tabular.",
      lines: [{ text: "High water 04:52 · 3.8 m", role: "figures" }],
      uses: ["client-print"],
      size: 9,
      unit: "pt",
      wanted: "0123456789:·",
    }),
  },
];
