"use client";
// A brief that was just deleted: the page that is shown then offers to bring it back.
import { useEffect, useState } from "react";
import type { Brief } from "@/contracts/brief";

type Deleted = Pick<Brief, "briefId" | "name">;
const KEY = "deleted-brief";

export const noteDeleted = ({ briefId, name }: Deleted) =>
  sessionStorage.setItem(KEY, JSON.stringify({ briefId, name }));

/** Told once; null where none was deleted. */
export function useDeleted(): [Deleted | null, () => void] {
  const [deleted, setDeleted] = useState<Deleted | null>(null);
  useEffect(() => {
    const note = sessionStorage.getItem(KEY);
    sessionStorage.removeItem(KEY);
    // oxlint-disable-next-line react/set-state-in-effect -- what this tab noted is not known while the page is rendered by the server
    if (note) setDeleted(JSON.parse(note) as Deleted);
  }, []);
  return [deleted, () => setDeleted(null)];
}
