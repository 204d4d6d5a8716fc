"use client";
// What the face of the line can be changed by: its axes as sliders, its features as switches.
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Block } from "@/contracts/lettering";
import type { StyleDetail } from "@/contracts/styles";
import { FEATURE_WORDS } from "@/contracts/words";
import { editValue } from "@/core/letter/editBlock";
import { queryOf } from "../parts/client";
import { Tick } from "../parts/Tick";
import { listTryable, ON_BY_DEFAULT } from "../parts/tryable";
import { NumberField } from "./NumberField";

type Props = { block: Block; onPreview: (block: Block | null) => void; onChange: (block: Block) => void };

export function AxesAndFeatures({ block, onPreview, onChange }: Props) {
  const style = useQuery(queryOf("getStyle", { params: { id: block.styleId } }));
  const { axes = [], features = [] } = style.data ?? {};
  const tryable = listTryable(features);
  if (!axes.length && !tryable.length) return null;
  const setFeature = (tag: string, isOn: boolean) =>
    onChange(editValue(block, "features", tag, isOn === ON_BY_DEFAULT.has(tag) ? undefined : Number(isOn)));
  return (
    <div className="flex basis-full flex-wrap items-center gap-x-5 gap-y-1" data-axes>
      {axes.map((axis) => (
        <AxisField key={axis.tag} {...{ axis, block, onPreview, onChange }} />
      ))}
      {tryable.map((tag) => {
        const value = block.features?.[tag];
        return (
          <Tick
            key={tag}
            name={FEATURE_WORDS[tag] ?? tag}
            checked={value === undefined ? ON_BY_DEFAULT.has(tag) : value > 0}
            onChange={(isOn) => setFeature(tag, isOn)}
          />
        );
      })}
    </div>
  );
}

/** An axis is seen at work while it is dragged, and is one step when it is let go of. */
function AxisField({ axis, block, onPreview, onChange }: Props & { axis: StyleDetail["axes"][number] }) {
  const { tag, name, min, max } = axis;
  const [dragged, setDragged] = useState<{ from: number; to: number } | null>(null);
  const value = block.coordinates?.[tag] ?? axis.default;
  const at = (v: number): Block => editValue(block, "coordinates", tag, v === axis.default ? undefined : v);
  const drop = () => {
    if (dragged && dragged.to !== dragged.from) onChange(at(dragged.to));
    else if (dragged) onPreview(null);
    setDragged(null);
  };
  return (
    <span className="flex items-center gap-1.5">
      <NumberField label={name} value={value} least={min} most={max} widthPx={44} onChange={(v) => onChange(at(v))} />
      <input
        type="range"
        aria-label={`${name}, dragged`}
        className="w-28 accent-tide"
        {...{ min, max }}
        step={(max - min) / 200}
        value={dragged?.to ?? value}
        onChange={(e) => {
          const v = Math.round(Number(e.target.value) * 100) / 100;
          // What is previewed is the line's value by then.
          setDragged({ from: dragged?.from ?? value, to: v });
          onPreview(at(v));
        }}
        onPointerUp={drop}
        onKeyUp={drop}
        onBlur={drop}
      />
    </span>
  );
}
