"use client";
// Nothing moves yet: motions to begin with, and title cards of the brief's lines.
import { useState } from "react";
import type { Block, LetteringDocument } from "@/contracts/lettering";
import { withMotion } from "@/core/motion/editPoses";
import { MOTION_LOOKS, startMotion, type MotionLook, type MotionSetting } from "@/core/motion/motionLooks";
import { readingMs } from "@/core/motion/readingTime";
import { CARDS, layTitleCard, type Card, type CardFaces } from "@/core/motion/titleCards";
import { ask } from "../../parts/client";
import { useBench } from "../../bench/BenchContext";
import type { LaidBlock } from "../letterTasks";

type Props = {
  document: LetteringDocument;
  blocks: readonly LaidBlock[];
  onChange: (document: LetteringDocument) => void;
  isStarted: boolean;
};

const CARD_SAYS: Record<Card, string> = {
  title: "the title in the middle, the other lines below",
  "thin and heavy": "the title heavy, the line below it thin",
  "lower third": "two lines at the lower left, for a name",
  "end roll": "all lines going by from below",
};
const LOOK_SAYS: Record<string, string> = {
  Fades: "all at once, out of nothing and back",
  "Rises from the line": "letter by letter from behind the baseline",
  "Fog lifts": "wide and faint, then close and clear",
  "Lamp is lit": "from hairline to full weight, from the middle",
  "Washed in by word": "word by word from the left, away to the right",
  Buoy: "each letter bobs into place, in no order",
};

export function BeginMove({ document, blocks, onChange, isStarted }: Props) {
  const { brief, sayFault } = useBench();
  const [roll, setRoll] = useState("");
  const [isRolling, setRolling] = useState(false);
  const look = async (one: MotionLook) => {
    try {
      onChange(startMotion(document, one, await settings(document, blocks), standsMs(document)));
    } catch (error) {
      sayFault(error);
    }
  };
  const lay = async (card: Card, text?: string) => {
    try {
      const lines = brief.lines.filter((l) => l.text.trim()).map((l, i) => ({ id: l.id ?? `l_${i}`, text: l.text }));
      const own = text === undefined ? lines : [{ id: lines[0]?.id ?? "l_0", text }];
      const laid = layTitleCard(card, own, await facesOf(document), brief.ink.toLowerCase());
      if (card === "end roll") return onChange(laid);
      const settingOf = await settings(laid, []);
      onChange(
        document.motion
          ? withMotion(laid, document.motion)
          : startMotion(laid, MOTION_LOOKS[0]!, settingOf, standsMs(laid)),
      );
    } catch (error) {
      sayFault(error);
    }
  };
  return (
    <div className="grid gap-x-10 gap-y-3 py-2 text-[12.5px] lg:grid-cols-2" data-begin-move>
      <section>
        <h2 className="font-semibold">{isStarted ? "Other motions" : "Nothing moves yet. Begin with a motion"}</h2>
        {MOTION_LOOKS.map((one) => (
          <Offer key={one.name} name={one.name} says={LOOK_SAYS[one.name] ?? ""} onTake={() => void look(one)} />
        ))}
      </section>
      <section>
        <h2 className="font-semibold">
          {isStarted ? "Lay the lines out again as" : "Or lay the brief’s lines out as"}
        </h2>
        {CARDS.map((card) => (
          <Offer
            key={card}
            name={card === "end roll" ? "End roll …" : card}
            says={CARD_SAYS[card]}
            onTake={() => (card === "end roll" ? setRolling(true) : void lay(card))}
          />
        ))}
        {isRolling && (
          <form
            className="mt-1 grid gap-1.5"
            onSubmit={(e) => {
              e.preventDefault();
              void lay("end roll", roll.trim() || undefined);
            }}
          >
            <label className="grid gap-1">
              <span className="text-basalt">Text of the roll, a line each; left empty, the brief’s lines</span>
              <textarea
                className="field h-24 w-full"
                maxLength={4000}
                value={roll}
                onChange={(e) => setRoll(e.target.value)}
              />
            </label>
            <button type="submit" className="btn btn-act justify-self-start">
              Lay out the roll
            </button>
          </form>
        )}
      </section>
    </div>
  );
}

function Offer({ name, says, onTake }: { name: string; says: string; onTake: () => void }) {
  return (
    <p className="flex min-h-6 items-baseline gap-2">
      <button type="button" className="btn-quiet font-semibold underline first-letter:uppercase" onClick={onTake}>
        {name}
      </button>
      <span className="text-basalt">{says}</span>
    </p>
  );
}

/** Long enough to be read, in whole fifths of a second. */
const standsMs = ({ blocks }: LetteringDocument) =>
  Math.max(2000, Math.ceil(readingMs(blocks.map((b) => b.text).join(" ")) / 200) * 200);

async function weightsOf(styleId: Block["styleId"]) {
  const { axes } = await ask("getStyle", { params: { id: styleId } });
  return axes.find((a) => a.tag === "wght") ?? null;
}

/** How large each block's letters are, and how far its weight goes. */
async function settings(
  document: LetteringDocument,
  blocks: readonly LaidBlock[],
): Promise<(block: Block) => MotionSetting> {
  const ids = [...new Set(document.blocks.map((b) => b.styleId))];
  const weights = new Map(await Promise.all(ids.map(async (id) => [id, await weightsOf(id)] as const)));
  return (block) => ({
    emMm: blocks.find((b) => b.id === block.id)?.emMm || ("emMm" in block.size ? block.size.emMm : 20),
    weights: weights.get(block.styleId) ?? null,
  });
}

/** The heaviest and the lightest that the lettering's own faces give: ends of a weight axis, else its first and its last face. */
async function facesOf({ blocks }: LetteringDocument): Promise<CardFaces> {
  const [first, last] = [blocks[0]!, blocks[blocks.length - 1]!];
  const weight = await weightsOf(first.styleId);
  if (!weight) return { heavy: { styleId: first.styleId }, light: { styleId: last.styleId } };
  const at = (wght: number) => ({ styleId: first.styleId, coordinates: { ...first.coordinates, wght } });
  return { heavy: at(Math.min(weight.max, 800)), light: at(Math.max(weight.min, 200)) };
}
