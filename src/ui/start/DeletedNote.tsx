"use client";
import { useRouter } from "next/navigation";
import { ask } from "../parts/client";
import { useDeleted } from "./deletedBrief";

/** After a brief was deleted: its way back. */
export function DeletedNote() {
  const router = useRouter();
  const [deleted, forget] = useDeleted();
  if (!deleted) return null;
  const { briefId, name } = deleted;
  const bringBack = () =>
    ask("changeBrief", { params: { id: briefId }, body: { deleted: false } }).then(() => {
      forget();
      router.push(`/b/${briefId}/brief`);
    });
  return (
    <span className="mr-4">
      Brief “{name}” deleted.{" "}
      <button type="button" className="btn-quiet underline" onClick={() => void bringBack()}>
        Undo
      </button>
    </span>
  );
}
