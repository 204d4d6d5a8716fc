"use client";
// How the chosen line stands in the chosen pose: place, size, strength, spacing, axes, colour.
import { useQuery } from "@tanstack/react-query";
import type { Block, LetteringDocument } from "@/contracts/lettering";
import type { BlockPose, Pose } from "@/contracts/poses";
import { changeAxis, changeBlockPose, removePose } from "@/core/motion/editPoses";
import { solidOf } from "@/core/letter/fills";
import { queryOf } from "../../parts/client";
import { ColourField } from "../ColourField";
import { NumberField } from "../NumberField";

type Props = { document: LetteringDocument; pose: Pose; block: Block; onChange: (document: LetteringDocument) => void };

export function PoseBar({ document, pose, block, onChange }: Props) {
  const own: BlockPose = pose.blocks[block.id] ?? {};
  const put = (by: Partial<BlockPose>) => onChange(changeBlockPose(document, pose.id, block.id, by));
  const percent = (v: number | undefined) => Math.round((v ?? 1) * 100);
  const isChanged = Object.keys(own).length > 0;
  return (
    <fieldset
      className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule py-1.5 text-[12.5px]"
      data-pose-bar
    >
      <legend className="sr-only">
        {pose.name}: {block.text}
      </legend>
      <b>{pose.name}</b>
      <NumberField label="Right" unit="mm" value={own.dxMm ?? 0} widthPx={40} onChange={(v) => put({ dxMm: v })} />
      <NumberField label="Down" unit="mm" value={own.dyMm ?? 0} widthPx={40} onChange={(v) => put({ dyMm: v })} />
      <NumberField
        label="Size"
        unit="%"
        step={5}
        least={0}
        most={10_000}
        widthPx={36}
        value={percent(own.scale)}
        onChange={(v) => put({ scale: v / 100 })}
      />
      <NumberField
        label="Turn"
        unit="°"
        step={5}
        widthPx={36}
        value={own.turnDeg ?? 0}
        onChange={(v) => put({ turnDeg: v })}
      />
      <NumberField
        label="Opacity"
        unit="%"
        step={5}
        least={0}
        most={100}
        widthPx={32}
        value={percent(own.opacity)}
        onChange={(v) => put({ opacity: v / 100 })}
      />
      <NumberField
        label="Spacing"
        step={10}
        least={-200}
        most={2000}
        widthPx={36}
        value={Math.round((own.trackingEm ?? block.trackingEm ?? 0) * 1000)}
        onChange={(v) => put({ trackingEm: v / 1000 })}
      />
      <Axes {...{ document, pose, block, own, onChange }} />
      <ColourField
        label={`Colour in ${pose.name}`}
        value={own.fill ?? solidOf(block.fill)}
        onChange={(fill) => put({ fill })}
      />
      {isChanged && (
        <button
          type="button"
          className="btn-quiet underline"
          onClick={() => put(Object.fromEntries(Object.keys(own).map((key) => [key, undefined])))}
        >
          As it is set
        </button>
      )}
      <button type="button" className="btn-quiet underline" onClick={() => onChange(removePose(document, pose.id))}>
        Remove the pose
      </button>
    </fieldset>
  );
}

function Axes({ document, pose, block, own, onChange }: Props & { own: BlockPose }) {
  const style = useQuery(queryOf("getStyle", { params: { id: block.styleId } }));
  return (style.data?.axes ?? []).map(({ tag, name, min, max, default: rest }) => (
    <NumberField
      key={tag}
      label={name}
      least={min}
      most={max}
      step={Math.max(0.1, Math.round((max - min) / 20))}
      widthPx={40}
      value={own.axes?.[tag] ?? block.coordinates?.[tag] ?? rest}
      onChange={(v) => onChange(changeAxis(document, pose.id, block.id, tag, v))}
    />
  ));
}
