"use client";
// Keeps something under a name of one's own.
import { useState } from "react";

type Props = { label: string; placeholder?: string; onKeep: (name: string) => void };

export function KeepAs({ label, placeholder = label, onKeep }: Props) {
  const [name, setName] = useState("");
  return (
    <form
      className="flex flex-1 gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        if (name.trim()) onKeep(name.trim());
        setName("");
      }}
    >
      <input
        aria-label={label}
        placeholder={placeholder}
        className="min-w-0 flex-1 border-b border-rule bg-transparent"
        value={name}
        onChange={(e) => setName(e.target.value)}
      />
      <button className="btn-quiet underline" disabled={!name.trim()}>
        Keep
      </button>
    </form>
  );
}
