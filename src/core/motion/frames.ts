// Frames of a motion: how many there are, when each is shown, and their rate as broadcasters count it.
type Timed = { durationMs: number; fps: number };

/** 23.976 and 29.97 stand for 24 and 30 frames in 1.001 seconds. */
export function rateOf(fps: number): { frames: number; seconds: number } {
  const whole = Math.round(fps);
  if (Math.abs(fps - whole) > 1e-6 && Math.abs(fps - whole / 1.001) < 0.002)
    return { frames: whole * 1000, seconds: 1001 };
  return Number.isInteger(fps) ? { frames: fps, seconds: 1 } : { frames: Math.round(fps * 1000), seconds: 1000 };
}

export const frameMs = ({ fps }: Pick<Timed, "fps">, n: number): number => {
  const { frames, seconds } = rateOf(fps);
  return (n * 1000 * seconds) / frames;
};

export const countFrames = ({ durationMs, fps }: Timed): number => {
  const { frames, seconds } = rateOf(fps);
  return Math.max(1, Math.round((durationMs * frames) / (1000 * seconds)));
};

/** Sizes of a frame: coded video takes even ones. */
export function frameSize(
  sheet: { widthMm: number; heightMm: number },
  widthPx: number,
): { widthPx: number; heightPx: number } {
  const even = (v: number) => Math.max(2, 2 * Math.ceil(v / 2 - 1e-9));
  return { widthPx: even(widthPx), heightPx: even(Math.round((widthPx * sheet.heightMm) / sheet.widthMm)) };
}
