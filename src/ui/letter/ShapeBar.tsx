"use client";
// What letters are made into: one moved, turned, scaled, its parts coloured; the line joined; fill, outline, shadow.
import type { ReactNode } from "react";
import type { Block, Fill } from "@/contracts/lettering";
import { backToText, editLetter, TOGETHER, withField } from "@/core/letter/editBlock";
import { solidOf } from "@/core/letter/fills";
import { ColourField } from "./ColourField";
import type { LaidBlock } from "./letterTasks";
import { LookChoice } from "./LookChoice";
import { nameLetter } from "./nameLetter";
import { NumberField } from "./NumberField";
import { Tick } from "../parts/Tick";

type Props = {
  block: Block;
  laid: LaidBlock | undefined;
  at: number | null;
  showsPoints: boolean;
  onChange: (block: Block) => void;
  onPoints: (isOn: boolean) => void;
};

export function ShapeBar({ block, laid, at, showsPoints, onChange, onPoints }: Props) {
  const letter = laid?.letters.find((l) => l.at === at && l.d);
  return (
    <div className="border-b border-rule py-2 text-[12.5px]" data-shape-bar>
      <div className="flex min-h-7 flex-wrap items-center gap-x-5 gap-y-1.5">
        {letter ? (
          <>
            <LetterFields {...{ block, onChange }} at={letter.at} text={nameLetter(letter)} parts={letter.parts} />
            <Tick name="Points" checked={showsPoints} onChange={onPoints} />
          </>
        ) : (
          <p className="text-basalt">Choose a letter on the sheet or in the strip to move, turn or scale it.</p>
        )}
      </div>
      <div className="flex flex-wrap items-center gap-x-5 gap-y-1.5 pt-1.5">
        <Tick
          name="Joined to one outline"
          checked={block.joined ?? false}
          onChange={(isOn) => onChange(withField(block, "joined", isOn || undefined))}
        />
        <LookChoice {...{ block, laid, onChange }} />
        <FillFields {...{ block, onChange }} />
        <OutlineFields {...{ block, onChange }} />
        <ShadowFields {...{ block, onChange }} />
        <Tick
          name="Keep together"
          checked={block.keepTogether !== undefined}
          onChange={(isOn) => onChange(withField(block, "keepTogether", isOn ? TOGETHER : undefined))}
        />
        <BridgeFields {...{ block, onChange }} />
        {isShaped(block) && (
          <button type="button" className="btn-quiet underline" onClick={() => onChange(backToText(block))}>
            Back to text
          </button>
        )}
      </div>
    </div>
  );
}

const isShaped = ({ letters, bridges, growMm, joined }: Block) => Boolean(letters ?? bridges ?? growMm ?? joined);

type LetterProps = { block: Block; at: number; text: string; parts: number; onChange: (block: Block) => void };

function LetterFields({ block, at, text, parts, onChange }: LetterProps) {
  const letter = block.letters?.find((l) => l.at === at);
  const edit = (change: Parameters<typeof editLetter>[2]) => onChange(editLetter(block, at, change));
  const plain = solidOf(block.fill);
  const colours = letter?.fills ?? [];
  const paint = (part: number, colour: string) =>
    edit({
      fills: Array.from({ length: Math.max(parts, colours.length) }, (_, i) =>
        i === part ? colour : (colours[i] ?? plain),
      ),
    });
  return (
    <>
      <b>{text}</b>
      <NumberField label="Right" unit="mm" value={letter?.dxMm ?? 0} step={0.5} onChange={(dxMm) => edit({ dxMm })} />
      <NumberField label="Down" unit="mm" value={letter?.dyMm ?? 0} step={0.5} onChange={(dyMm) => edit({ dyMm })} />
      <NumberField label="Turned" unit="°" value={letter?.turnDeg ?? 0} onChange={(turnDeg) => edit({ turnDeg })} />
      <NumberField
        label="Scale"
        unit="%"
        value={Math.round((letter?.scale ?? 1) * 1000) / 10}
        least={1}
        most={10_000}
        onChange={(v) => edit({ scale: v / 100 })}
      />
      {!block.joined && parts > 0 && (
        <span className="flex items-center gap-1.5">
          <span className="text-basalt">{parts > 1 ? "Its parts" : "Its colour"}</span>
          {Array.from({ length: Math.min(parts, 12) }, (_, i) => (
            <ColourField
              key={i}
              label={parts > 1 ? `Colour of part ${i + 1} of ${text}` : `Colour of ${text}`}
              value={colours[i] ?? plain}
              onChange={(colour) => paint(i, colour)}
            />
          ))}
        </span>
      )}
      {letter && (
        <button
          type="button"
          className="btn-quiet underline"
          onClick={() =>
            onChange(
              withField(
                block,
                "letters",
                block.letters!.filter((l) => l.at !== at),
              ),
            )
          }
        >
          As it comes
        </button>
      )}
    </>
  );
}

type BlockProps = { block: Block; onChange: (block: Block) => void };
const Group = ({ name, children }: { name: string; children: ReactNode }) => (
  <span role="group" aria-label={name} className="flex items-center gap-1.5">
    {children}
  </span>
);

/** The bridges of the line, all of one width; nothing where there are none. */
function BridgeFields({ block, onChange }: BlockProps) {
  const { bridges } = block;
  if (!bridges?.length) return null;
  return (
    <Group name="Bridges">
      <NumberField
        label={bridges.length === 1 ? "1 bridge" : `${bridges.length} bridges`}
        unit="mm"
        widthPx={36}
        step={0.1}
        least={0.1}
        value={bridges[0]!.widthMm}
        onChange={(widthMm) => onChange({ ...block, bridges: bridges.map((b) => ({ ...b, widthMm })) })}
      />
      <button
        type="button"
        className="btn-quiet underline"
        onClick={() => onChange(withField(block, "bridges", undefined))}
      >
        Remove
      </button>
    </Group>
  );
}

function FillFields({ block, onChange }: BlockProps) {
  const { fill } = block;
  const put = (next: Fill) => onChange({ ...block, fill: next });
  const isGradient = typeof fill !== "string";
  return (
    <Group name="Fill">
      <span className="text-basalt">Fill</span>
      {isGradient ? (
        <>
          <ColourField label="Fill from" value={fill.from} onChange={(from) => put({ ...fill, from })} />
          <ColourField label="Fill to" value={fill.to} onChange={(to) => put({ ...fill, to })} />
          <NumberField
            label="Angle"
            isLabelHidden
            unit="°"
            widthPx={36}
            value={fill.angleDeg}
            onChange={(angleDeg) => put({ ...fill, angleDeg })}
          />
        </>
      ) : (
        <ColourField label="Fill" value={fill} onChange={put} />
      )}
      <Tick
        name="Fading"
        checked={isGradient}
        onChange={(isOn) =>
          put(isOn ? { from: fill as string, to: "#1c6b74", angleDeg: 0 } : (fill as { from: string }).from)
        }
      />
    </Group>
  );
}

function OutlineFields({ block, onChange }: BlockProps) {
  const { outline } = block;
  return (
    <Group name="Outline">
      <Tick
        name="Outline"
        checked={outline !== undefined}
        onChange={(isOn) =>
          onChange(withField(block, "outline", isOn ? { widthMm: 1, colour: "#a8431a", side: "outside" } : undefined))
        }
      />
      {outline && (
        <>
          <NumberField
            label="Width of the outline"
            isLabelHidden
            unit="mm"
            widthPx={36}
            step={0.1}
            least={0.05}
            most={500}
            value={outline.widthMm}
            onChange={(widthMm) => onChange({ ...block, outline: { ...outline, widthMm } })}
          />
          <select
            aria-label="Side of the outline"
            className="border-b border-slate bg-transparent"
            value={outline.side ?? "middle"}
            onChange={(e) => onChange({ ...block, outline: { ...outline, side: e.target.value as "inside" } })}
          >
            <option value="inside">inside</option>
            <option value="middle">middle</option>
            <option value="outside">outside</option>
          </select>
          <ColourField
            label="Colour of the outline"
            value={outline.colour}
            onChange={(colour) => onChange({ ...block, outline: { ...outline, colour } })}
          />
        </>
      )}
    </Group>
  );
}

function ShadowFields({ block, onChange }: BlockProps) {
  const { shadow } = block;
  const field = (label: string, key: "dxMm" | "dyMm" | "blurMm", least?: number) =>
    shadow && (
      <NumberField
        label={label}
        unit="mm"
        widthPx={32}
        step={0.5}
        least={least}
        value={shadow[key]}
        onChange={(v) => onChange({ ...block, shadow: { ...shadow, [key]: v } })}
      />
    );
  return (
    <Group name="Shadow">
      <Tick
        name="Shadow"
        checked={shadow !== undefined}
        onChange={(isOn) =>
          onChange(withField(block, "shadow", isOn ? { dxMm: 2, dyMm: 2, blurMm: 3, colour: "#20262b80" } : undefined))
        }
      />
      {field("right", "dxMm")}
      {field("down", "dyMm")}
      {field("soft", "blurMm", 0)}
    </Group>
  );
}
