"use client";
// What somebody keeps in this browser under names of their own: materials, looks.
import { useState } from "react";

type Named = { name: string };

/** @param key - in the browser's storage. */
export function useOwn<T extends Named>(key: string) {
  const [own, setOwn] = useState<T[]>(() => readOwn<T>(key));
  const put = (next: T[]) => {
    setOwn(next);
    try {
      localStorage.setItem(key, JSON.stringify(next));
    } catch {
      // A full or forbidden store: kept until the page is left.
    }
  };
  return {
    own,
    /** One of the same name is replaced. */
    keep: (one: T) => put([...own.filter((o) => o.name !== one.name), one]),
    drop: (name: string) => put(own.filter((o) => o.name !== name)),
  };
}

function readOwn<T extends Named>(key: string): T[] {
  try {
    const read: unknown = JSON.parse(localStorage.getItem(key) ?? "[]");
    return Array.isArray(read) ? (read as T[]).filter((o) => typeof o?.name === "string") : [];
  } catch {
    return [];
  }
}
