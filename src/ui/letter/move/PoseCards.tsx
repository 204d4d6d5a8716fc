"use client";
// Poses in a row: each shows the whole lettering as it stands then; between two of them how long the way is and how it goes.
import { Fragment, useEffect, useMemo, useRef } from "react";
import type { LetteringDocument } from "@/contracts/lettering";
import type { Pose } from "@/contracts/poses";
import { addPose, changeEase, changePose, changeStagger, changeTime } from "@/core/motion/editPoses";
import type { FontAddresses } from "../letter.worker";
import { NumberField } from "../NumberField";
import { drawMoment } from "./drawMoment";
import { EaseCurve } from "./EaseCurve";
import type { MotionClock } from "./motionClock";
import { newPoseId, useMomentNews, useMoments, type PoseChoice } from "./useMotion";
import type { MomentStore } from "./momentStore";

const CARD_PX = { width: 140, most: 100 };

type Props = {
  document: LetteringDocument;
  fonts: FontAddresses | null;
  choice: PoseChoice;
  clock: MotionClock;
  paper: string;
  onPreview: (document: LetteringDocument | null) => void;
  onChange: (document: LetteringDocument) => void;
};

export function PoseCards({ document, fonts, choice, clock, paper, onPreview, onChange }: Props) {
  const { poses, pose, choose, setWanted } = choice;
  // As a pose is meant: all letters have come.
  const together = useMemo(() => changeStagger(document, undefined), [document]);
  const store = useMoments(together, fonts, false);
  useMomentNews(store);
  const add = () => {
    const id = newPoseId();
    onChange(addPose(document, pose?.id ?? null, id));
    void setWanted(id);
  };
  return (
    <div
      className="flex shrink-0 items-start overflow-x-auto pt-1 pb-1"
      role="group"
      aria-label="Poses"
      data-poses={poses.length}
    >
      {poses.map((one, i) => (
        <Fragment key={one.id}>
          <Card
            {...{ one, document, store, paper }}
            isChosen={one.id === pose?.id}
            onChoose={() => choose(one.id)}
            onChange={onChange}
          />
          {poses[i + 1] && (
            <EaseCurve
              from={one.name}
              to={poses[i + 1]!.name}
              seconds={(poses[i + 1]!.timeMs - one.timeMs) / 1000}
              ease={one.ease}
              onPreview={(ease) => onPreview(ease && changeEase(document, one.id, ease))}
              onChange={(ease) => {
                clock.seek(one.timeMs);
                onChange(changeEase(document, one.id, ease));
              }}
            />
          )}
        </Fragment>
      ))}
      <button type="button" className="btn-quiet ml-4 shrink-0 self-center underline" onClick={add}>
        Add a pose
      </button>
    </div>
  );
}

type CardProps = {
  one: Pose;
  document: LetteringDocument;
  store: MomentStore | null;
  paper: string;
  isChosen: boolean;
  onChoose: () => void;
  onChange: (document: LetteringDocument) => void;
};

function Card({ one, document, store, paper, isChosen, onChoose, onChange }: CardProps) {
  const { sheet } = document;
  const width = Math.min(CARD_PX.width, (CARD_PX.most * sheet.widthMm) / sheet.heightMm);
  const height = (width * sheet.heightMm) / sheet.widthMm;
  const rename = (name: string) => name !== one.name && onChange(changePose(document, one.id, { name }));
  return (
    <div className="shrink-0" style={{ width: Math.max(140, width) }} data-pose={one.id}>
      <button
        type="button"
        aria-pressed={isChosen}
        aria-label={`Pose ${one.name}`}
        onClick={onChoose}
        className={`block border-2 ${isChosen ? "border-tide" : "border-transparent"}`}
        style={{ width, height, background: sheet.ground ?? paper }}
      >
        <Thumbnail {...{ store, width, height }} timeMs={one.timeMs} pxPerMm={width / sheet.widthMm} />
      </button>
      <div className="mt-1 flex items-baseline justify-between gap-2 text-[12px]">
        <input
          aria-label={`Name of ${one.name}`}
          className="min-w-0 flex-1 border-b border-transparent bg-transparent font-semibold hover:border-rule focus:border-slate"
          defaultValue={one.name}
          key={one.name}
          maxLength={40}
          onBlur={(e) => rename(e.target.value)}
          onKeyDown={(e) => e.key === "Enter" && e.currentTarget.blur()}
        />
        <NumberField
          label={`Time of ${one.name}`}
          isLabelHidden
          unit="s"
          step={0.1}
          least={0}
          most={600}
          widthPx={34}
          value={one.timeMs / 1000}
          onChange={(v) => onChange(changeTime(document, one.id, v * 1000))}
        />
      </div>
    </div>
  );
}

type ThumbnailProps = { store: MomentStore | null; timeMs: number; width: number; height: number; pxPerMm: number };

function Thumbnail({ store, timeMs, width, height, pxPerMm }: ThumbnailProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const moment = store?.peek(timeMs) ?? null;
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (!context || !moment || !store) return;
    const scale = window.devicePixelRatio || 1;
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.clearRect(0, 0, context.canvas.width, context.canvas.height);
    drawMoment({ context, pxPerMm: pxPerMm * scale }, moment, store.pathOf);
  }, [moment, store, pxPerMm]);
  const scale = typeof window === "undefined" ? 1 : window.devicePixelRatio || 1;
  return (
    <canvas
      ref={canvas}
      aria-hidden
      className="h-full w-full"
      width={Math.round(width * scale)}
      height={Math.round(height * scale)}
      data-drawn={moment?.groups.length ?? 0}
    />
  );
}
