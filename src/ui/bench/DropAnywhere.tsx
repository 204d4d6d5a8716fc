"use client";
// Fonts, folders and zips may be dropped on any view. Pictures on Identify are that view's own.
import { useQueryClient } from "@tanstack/react-query";
import { usePathname, useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import { DOCUMENT_ENDINGS } from "@/contracts/words";
import { collectFiles, sendFiles } from "../parts/bringIn";
import { useBench } from "./BenchContext";
import { readAgain } from "../parts/client";

const carriesFiles = (event: DragEvent) => [...(event.dataTransfer?.types ?? [])].includes("Files");
const isPicture = (file: File) => file.type.startsWith("image/");
const isDocument = (file: File) => DOCUMENT_ENDINGS.includes(file.name.toLowerCase().split(".").pop() ?? "");

export function DropAnywhere() {
  const { brief, sayFault } = useBench();
  const [isOver, setIsOver] = useState(false);
  const router = useRouter();
  const queries = useQueryClient();
  const [, , , view = "", part = ""] = usePathname().split("/");
  useEffect(() => {
    let depth = 0;
    const onEnter = (event: DragEvent) => {
      if (!carriesFiles(event) || view === "identify") return;
      depth++;
      setIsOver(true);
    };
    const onLeave = () => {
      depth = Math.max(0, depth - 1);
      if (!depth) setIsOver(false);
    };
    const onOver = (event: DragEvent) => {
      if (carriesFiles(event)) event.preventDefault();
    };
    const onDrop = (event: DragEvent) => {
      depth = 0;
      setIsOver(false);
      const transfer = event.dataTransfer;
      if (!transfer || !carriesFiles(event) || event.defaultPrevented) return;
      if (view === "identify" && [...transfer.files].every(part === "documents" ? isDocument : isPicture)) return;
      event.preventDefault();
      void collectFiles(transfer)
        .then((chosen) => (chosen.length ? sendFiles(chosen) : null))
        .then((importId) => {
          if (!importId) return;
          void readAgain(queries, "health");
          router.push(`/b/${brief.briefId}/libraries?tab=arrivals&import=${importId}`);
        })
        .catch(sayFault);
    };
    window.addEventListener("dragenter", onEnter);
    window.addEventListener("dragleave", onLeave);
    window.addEventListener("dragover", onOver);
    window.addEventListener("drop", onDrop);
    return () => {
      window.removeEventListener("dragenter", onEnter);
      window.removeEventListener("dragleave", onLeave);
      window.removeEventListener("dragover", onOver);
      window.removeEventListener("drop", onDrop);
    };
  }, [brief.briefId, queries, router, sayFault, view, part]);
  if (!isOver) return null;
  return (
    <div className="pointer-events-none fixed inset-0 z-50 grid place-items-center border-4 border-tide bg-limestone/85">
      <p className="text-[20px] font-bold">Drop to bring in fonts, folders or zips</p>
    </div>
  );
}
