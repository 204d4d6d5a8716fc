"use client";
// The picture of the brief: chosen or dropped, shown, removed. Faces on the wall can be set on it.
import { useRouter } from "next/navigation";
import { useState } from "react";
import { useBench } from "../bench/BenchContext";
import { addressOfPicture } from "../parts/briefPicture";
import { ask } from "../parts/client";

export function PictureField() {
  const { brief, dispatch, sayFault, say } = useBench();
  const router = useRouter();
  const [isBusy, setBusy] = useState(false);
  const arrived = (picture: string | null) => {
    dispatch({ type: "brief arrived", brief: { ...brief, picture } });
    router.refresh();
  };
  const put = (file: File | undefined) => {
    if (!file) return;
    const form = new FormData();
    form.append("image", file);
    setBusy(true);
    ask("putBriefPicture", { params: { id: brief.briefId }, form })
      .then((r) => arrived(r.picture))
      .catch(sayFault)
      .finally(() => setBusy(false));
  };
  const remove = () =>
    ask("removeBriefPicture", { params: { id: brief.briefId } })
      .then(() => {
        arrived(null);
        say("The picture was removed.");
      })
      .catch(sayFault);
  return (
    <div
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault();
        e.stopPropagation();
        put(e.dataTransfer.files[0]);
      }}
    >
      {brief.picture && (
        <div
          role="img"
          aria-label="The brief’s picture"
          className="mb-2 h-32 border border-rule bg-cover bg-center"
          style={{
            backgroundImage: `url(${addressOfPicture(brief)})`,
          }}
        />
      )}
      <div className="flex items-center gap-3">
        <label className="btn cursor-pointer">
          {isBusy ? "Reading …" : brief.picture ? "Choose another" : "Choose a picture"}
          <input
            type="file"
            accept="image/png,image/jpeg,image/webp,image/tiff,image/gif,image/avif"
            className="sr-only"
            aria-label="Picture of the brief"
            onChange={(e) => {
              put(e.target.files?.[0]);
              e.target.value = "";
            }}
          />
        </label>
        {brief.picture && (
          <button type="button" className="btn-quiet underline" onClick={() => void remove()}>
            Remove it
          </button>
        )}
      </div>
    </div>
  );
}
