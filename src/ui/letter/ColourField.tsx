"use client";
// A colour as a swatch that opens the browser's own choice; what it had of transparency it keeps.
import { useEffect, useRef } from "react";

type Props = { label: string; value: string; onChange: (colour: string) => void };

export function ColourField({ label, value, onChange }: Props) {
  const field = useRef<HTMLInputElement>(null);
  const tell = useRef(onChange);
  useEffect(() => {
    tell.current = onChange;
  });
  // React tells of every colour that is passed over; the browser's own event comes with the one that was chosen, which is one step.
  useEffect(() => {
    const input = field.current!;
    const onChosen = () => tell.current(input.value + value.slice(7));
    input.addEventListener("change", onChosen);
    return () => input.removeEventListener("change", onChosen);
  }, [value]);
  return (
    <input
      ref={field}
      key={value}
      type="color"
      aria-label={label}
      title={label}
      defaultValue={value.slice(0, 7)}
      className="h-6 w-7 cursor-pointer border border-rule bg-transparent p-0"
    />
  );
}
