// A choice that is ticked; what it means may be said behind it.
type Props = { name: string; says?: string; checked: boolean; onChange: (checked: boolean) => void };

export function Tick({ name, says, checked, onChange }: Props) {
  return (
    <label className="flex items-baseline gap-2">
      <input type="checkbox" className="accent-tide" checked={checked} onChange={(e) => onChange(e.target.checked)} />
      <span className={says ? "font-semibold whitespace-nowrap" : ""}>{name}</span>
      {says && <span className="text-basalt">{says}</span>}
    </label>
  );
}
