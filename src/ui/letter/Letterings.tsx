"use client";
// The letterings of a brief: another one is started, one is opened, named, deleted and brought back.
import { useState } from "react";
import type { Lettering, LetteringDocument } from "@/contracts/lettering";
import { useBench } from "../bench/BenchContext";
import { useChange } from "../parts/client";
import { NamedMenu } from "../parts/NamedMenu";

type Props = {
  all: readonly Lettering[];
  open: Lettering;
  /** What another one begins with: the one that is open, as it stands. */
  document: LetteringDocument;
  /** Another is opened when all of this one is saved. */
  isBusy: boolean;
  onOpen: (letteringId: string) => void;
};

export function Letterings({ all, open, document, isBusy, onOpen }: Props) {
  const { brief, sayFault } = useBench();
  const change = useChange();
  const [deleted, setDeleted] = useState<Lettering | null>(null);
  const act = async (deed: () => Promise<unknown>) => {
    try {
      await deed();
    } catch (error) {
      sayFault(error);
    }
  };
  const another = () =>
    act(async () => {
      const name = nextName(
        brief.name,
        all.map((l) => l.name),
      );
      const made = await change("createLettering", { params: { id: brief.briefId }, body: { name, document } });
      onOpen(made.letteringId);
    });
  const remove = (lettering: Lettering) =>
    act(async () => {
      await change("deleteLettering", { params: { id: lettering.letteringId } });
      setDeleted(lettering);
    });
  const bringBack = ({ letteringId }: Lettering) =>
    act(async () => {
      await change("changeLettering", { params: { id: letteringId }, body: { deleted: false } });
      setDeleted(null);
    });
  return (
    <span className="flex items-baseline gap-3 text-[12.5px]">
      <NameField key={`${open.letteringId} ${open.name}`} lettering={open} />
      <NamedMenu
        label={all.length === 1 ? "1 lettering" : `${all.length} letterings`}
        deed={{ label: "Start another from this one", isOff: isBusy, onDo: () => void another() }}
        items={all
          .filter((l) => l.letteringId !== open.letteringId)
          .map((l) => ({
            id: l.letteringId,
            name: l.name,
            forgetLabel: `Delete ${l.name}`,
            onOpen: () => !isBusy && onOpen(l.letteringId),
            onForget: () => void remove(l),
          }))}
      />
      {deleted && (
        <span role="status">
          {deleted.name} deleted.{" "}
          <button type="button" className="btn-quiet underline" onClick={() => void bringBack(deleted)}>
            Bring it back
          </button>
        </span>
      )}
    </span>
  );
}

/** The name with the next number that is free. */
function nextName(name: string, taken: readonly string[]): string {
  let n = taken.length + 1;
  while (taken.includes(`${name} ${n}`)) n++;
  return `${name} ${n}`;
}

function NameField({ lettering }: { lettering: Lettering }) {
  const { sayFault } = useBench();
  const change = useChange();
  const [name, setName] = useState(lettering.name);
  const commit = async () => {
    const next = name.trim();
    if (!next || next === lettering.name) return setName(lettering.name);
    try {
      await change("changeLettering", { params: { id: lettering.letteringId }, body: { name: next } });
    } catch (error) {
      sayFault(error);
    }
  };
  return (
    <input
      aria-label="Name of the lettering"
      className="w-40 border-b border-rule bg-transparent"
      maxLength={120}
      value={name}
      onChange={(e) => setName(e.target.value)}
      onBlur={() => void commit()}
      onKeyDown={(e) => {
        if (e.key === "Enter") e.currentTarget.blur();
        if (e.key === "Escape") setName(lettering.name);
      }}
    />
  );
}
