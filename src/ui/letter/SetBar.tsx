"use client";
// How the chosen line is set: its face, size in real units, spacing, alignment, width, and what it stands on.
import { LEADING_EM, type Block, type TextPath } from "@/contracts/lettering";
import { convertLength } from "@/contracts/units";
import { withField, withValues } from "@/core/letter/editBlock";
import { useBench } from "../bench/BenchContext";
import { useKept } from "../bench/Tray";
import { Choice } from "../parts/Choice";
import { AxesAndFeatures } from "./AxesAndFeatures";
import type { LaidBlock } from "./letterTasks";
import { NumberField } from "./NumberField";
import { sizeOf } from "./SizeHandle";

type Props = { block: Block; laid: LaidBlock | undefined; onChange: (block: Block) => void };
type BarProps = Props & {
  isDrawing: boolean;
  onDraw: (isOn: boolean) => void;
  onPreview: (block: Block | null) => void;
};

const SIZES = [
  { value: "capHeightMm", name: "Capitals" },
  { value: "xHeightMm", name: "x-height" },
  { value: "emMm", name: "Em" },
] as const;
type SizeBy = (typeof SIZES)[number]["value"];

const LIES_ON = [
  { value: "straight", name: "a straight line" },
  { value: "outside", name: "an arc, outside" },
  { value: "inside", name: "an arc, inside" },
  { value: "wave", name: "a wave" },
  { value: "drawn", name: "a drawn curve" },
] as const;
type LiesOn = (typeof LIES_ON)[number]["value"];

export function SetBar({ block, laid, isDrawing, onDraw, onPreview, onChange }: BarProps) {
  return (
    <div className="flex flex-wrap items-center gap-x-5 gap-y-1.5 border-b border-rule py-2 text-[12.5px]" data-set-bar>
      <FaceChoice {...{ block, onChange }} />
      <SizeFields {...{ block, laid, onChange }} />
      <NumberField
        label="Spacing"
        value={Math.round((block.trackingEm ?? 0) * 1000)}
        least={-200}
        most={2000}
        onChange={(v) => onChange(withField(block, "trackingEm", v ? v / 1000 : undefined))}
      />
      {block.text.includes("\n") && (
        <NumberField
          label="Line"
          value={block.leadingEm ?? LEADING_EM}
          step={0.1}
          least={0}
          most={10}
          onChange={(v) => onChange({ ...block, leadingEm: v })}
        />
      )}
      <span className="flex items-baseline gap-1.5">
        <span className="text-basalt">Stands</span>
        <Choice
          label="Alignment"
          value={block.align ?? "left"}
          options={[
            { value: "left", name: "from the left" },
            { value: "centre", name: "about the middle" },
            { value: "right", name: "to the right" },
          ]}
          onChange={(align) => onChange({ ...block, align })}
        />
      </span>
      <PathFields {...{ block, laid, onChange }} />
      {block.path?.kind === "drawn" && (
        <button
          type="button"
          className="btn-quiet underline"
          aria-pressed={isDrawing}
          onClick={() => onDraw(!isDrawing)}
        >
          {isDrawing ? "Draw a stroke on the sheet, or leave it as it is" : "Draw it on the sheet"}
        </button>
      )}
      <NumberField
        label="Turned"
        unit="°"
        value={block.turnDeg ?? 0}
        onChange={(v) => onChange(withField(block, "turnDeg", v || undefined))}
      />
      <AxesAndFeatures {...{ block, onPreview, onChange }} />
    </div>
  );
}

/** The faces that are kept: one click dresses the line. */
function FaceChoice({ block, onChange }: Pick<Props, "block" | "onChange">) {
  const { brief } = useBench();
  const kept = useKept();
  const names = new Map(kept.data?.items.map((i) => [i.styleId, `${i.family} ${i.style}`]));
  const options = brief.kept.flatMap(({ keptId, styleId }) => {
    const name = names.get(styleId) ?? (kept.isPending && "…");
    return name ? [{ value: keptId, name }] : [];
  });
  const worn = brief.kept.find((k) => k.styleId === block.styleId);
  const value = worn?.keptId ?? "";
  return (
    <Choice
      label="Face"
      value={value}
      options={worn ? options : [{ value: "", name: "A face no longer kept" }, ...options]}
      onChange={(keptId) => {
        const entry = brief.kept.find((k) => k.keptId === keptId);
        if (entry) onChange(dress(block, entry));
      }}
    />
  );
}

/** Another face: what was done to single letters goes with the glyphs of the face before. */
export function dress(
  block: Block,
  {
    styleId,
    location,
    features,
  }: { styleId: Block["styleId"]; location: Record<string, number>; features: Record<string, number> },
): Block {
  const letters = block.letters?.flatMap(({ glyphId: _, points: __, fills: ___, feature: ____, ...rest }) =>
    Object.keys(rest).length > 1 ? [rest] : [],
  );
  const next = withValues(withValues({ ...block, styleId }, "coordinates", location), "features", features);
  return withField(next, "letters", letters?.length ? letters : undefined);
}

function SizeFields({ block, laid, onChange }: Props) {
  const { brief } = useBench();
  const unit = brief.unit;
  const by = Object.keys(block.size)[0] as SizeBy;
  const isFitted = block.fitWidthMm !== undefined;
  const mm = isFitted ? block.fitWidthMm! : sizeOf(block, laid?.emMm ?? 0);
  const put = (v: number) => {
    const lengthMm = Math.max(0.1, convertLength(v, unit, "mm"));
    onChange(isFitted ? { ...block, fitWidthMm: lengthMm } : ({ ...block, size: { [by]: lengthMm } } as Block));
  };
  const turn = (next: SizeBy | "width") => {
    if (next === "width") {
      const ink = laid?.ink;
      return onChange({ ...block, fitWidthMm: ink ? Math.round((ink.xMax - ink.xMin) * 10) / 10 : 100 });
    }
    const heightEm = laid && laid.emMm > 0 ? sizeOf(block, laid.emMm) / laid.emMm : 1;
    const emMm = laid?.emMm ?? mm;
    // The letters stay as large as they are where that is known.
    const size = { [next]: next === "emMm" ? emMm : Math.round(emMm * (heightEm < 1 ? heightEm : 0.7) * 100) / 100 };
    onChange(withField({ ...block, size } as Block, "fitWidthMm", undefined));
  };
  return (
    <span className="flex items-baseline gap-1.5">
      <Choice
        label="Size by"
        value={isFitted ? "width" : by}
        options={[...SIZES, { value: "width" as const, name: "Width" }]}
        onChange={turn}
        strong={false}
      />
      <NumberField
        label="Size"
        isLabelHidden
        unit={unit}
        value={convertLength(mm, "mm", unit)}
        least={0.01}
        onChange={put}
      />
    </span>
  );
}

const liesOn = (path: TextPath | undefined): LiesOn => {
  if (!path) return "straight";
  if (path.kind !== "arc") return path.kind;
  return path.radiusMm > 0 ? "outside" : "inside";
};

/** A path that suits the line as it is. */
function pathFor(kind: LiesOn, block: Block, laid: LaidBlock | undefined): TextPath | undefined {
  const widthMm = laid?.ink
    ? laid.ink.xMax - laid.ink.xMin
    : (sizeOf(block, 0) || 20) * Math.max(2, block.text.length / 2);
  const up = (v: number) => Math.max(5, Math.round(v / 5) * 5);
  if (kind === "outside") return { kind: "arc", radiusMm: up(widthMm * 1.4), startDeg: -90 };
  if (kind === "inside") return { kind: "arc", radiusMm: -up(widthMm * 1.4), startDeg: -90 };
  if (kind === "wave") return { kind: "wave", heightMm: up(widthMm / 10), lengthMm: up(widthMm) };
  const w = up(widthMm);
  return kind === "drawn" ? { kind: "drawn", d: `M0 0C${w / 3} ${-w / 4} ${(2 * w) / 3} ${w / 4} ${w} 0` } : undefined;
}

function PathFields({ block, laid, onChange }: Props) {
  const { brief } = useBench();
  const { path } = block;
  const { unit } = brief;
  const length = (label: string, mm: number, put: (mm: number) => TextPath) => (
    <NumberField
      label={label}
      unit={unit}
      value={convertLength(mm, "mm", unit)}
      step={5}
      onChange={(v) => v && onChange({ ...block, path: put(convertLength(v, unit, "mm")) })}
    />
  );
  return (
    <>
      <span className="flex items-baseline gap-1.5">
        <span className="text-basalt">Lies on</span>
        <Choice
          label="Lies on"
          value={liesOn(path)}
          options={[...LIES_ON]}
          onChange={(kind) => onChange(withField(block, "path", pathFor(kind, block, laid)))}
        />
      </span>
      {path?.kind === "arc" &&
        length("Radius", Math.abs(path.radiusMm), (mm) => ({
          ...path,
          radiusMm: Math.max(1, Math.abs(mm)) * Math.sign(path.radiusMm),
        }))}
      {path?.kind === "wave" && length("Height", path.heightMm, (mm) => ({ ...path, heightMm: mm }))}
      {path?.kind === "wave" &&
        length("From crest to crest", path.lengthMm, (mm) => ({ ...path, lengthMm: Math.max(1, Math.abs(mm)) }))}
      {path && (
        <label className="flex items-center gap-1.5">
          <input
            type="checkbox"
            checked={path.isUpright ?? false}
            onChange={(e) => {
              const { isUpright: _, ...rest } = path;
              onChange({ ...block, path: e.target.checked ? { ...path, isUpright: true } : rest });
            }}
          />
          Letters upright
        </label>
      )}
    </>
  );
}
