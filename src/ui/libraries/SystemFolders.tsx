"use client";
// Folders where this system keeps fonts, each with a button that connects it: how an empty library begins.
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { SystemFolder } from "@/contracts/libraries";
import { useBench } from "../bench/BenchContext";
import { queryOf, useChange } from "../parts/client";
import { countOf } from "../parts/words";

export function SystemFolders() {
  const { say, sayFault } = useBench();
  const change = useChange();
  const [asked, setAsked] = useState<string | null>(null);
  const folders = useQuery(queryOf("listSystemFolders", {}));
  const connect = (folder: SystemFolder) => {
    setAsked(folder.path);
    change("addLibrary", { body: { kind: "folder", address: folder.path, name: folder.name } })
      .then(() => say(`${folder.name} connected. Fonts appear as they are read.`))
      .catch(sayFault)
      .finally(() => setAsked(null));
  };
  if (!folders.data?.folders.length) return null;
  return (
    <section className="mt-6 max-w-[640px]" aria-label="Fonts on this system">
      <h2 className="head">Fonts on this system</h2>
      <p className="text-[12px] text-basalt">
        Connected folders are read and watched for changes. Nothing in them is changed.
      </p>
      <ul className="mt-1">
        {folders.data.folders.map((folder) => (
          <li key={folder.path} className="flex items-center gap-4 border-b border-rule py-1.5">
            <span className="min-w-0 flex-1 truncate">
              <b>{folder.name}</b> <span className="text-basalt">{folder.path}</span>
            </span>
            <span className="num shrink-0">{countOf(folder.fontCount, "file", "files")}</span>
            <button
              type="button"
              className="btn shrink-0"
              aria-label={`Connect ${folder.path}`}
              disabled={asked !== null}
              onClick={() => connect(folder)}
            >
              {asked === folder.path ? "Connecting …" : "Connect"}
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
