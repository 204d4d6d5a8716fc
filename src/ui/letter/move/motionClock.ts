// The time of a preview: played, halted, slowed, moved by hand. Whoever shows it listens; what is drawn at sixty a second does not pass
// through React.
export type ClockState = { timeMs: number; isPlaying: boolean; rate: number; loops: boolean };

const LATELY_MS = 100;

export class MotionClock {
  private state: ClockState = { timeMs: 0, isPlaying: false, rate: 1, loops: true };
  private late: ClockState = this.state;
  private readonly heard = new Set<() => void>();
  private request = 0;
  private before = 0;
  constructor(private durationMs: number) {}

  get now(): ClockState {
    return this.state;
  }
  /** The same for what need not be redrawn sixty times a second: while it plays, as it was at most a tenth of a second ago. */
  get lately(): ClockState {
    const { late, state } = this;
    if (!state.isPlaying || !late.isPlaying || Math.abs(state.timeMs - late.timeMs) >= LATELY_MS) this.late = state;
    return this.late;
  }
  subscribe = (listener: () => void): (() => void) => {
    this.heard.add(listener);
    return () => this.heard.delete(listener);
  };

  setDuration(durationMs: number) {
    this.durationMs = durationMs;
    if (this.state.timeMs > durationMs) this.put({ timeMs: durationMs });
  }
  seek = (timeMs: number) => this.put({ timeMs: Math.max(0, Math.min(this.durationMs, timeMs)) });
  set = (by: Partial<Pick<ClockState, "rate" | "loops">>) => this.put(by);
  toggle = () => (this.state.isPlaying ? this.halt() : this.play());

  play = () => {
    if (this.state.isPlaying) return;
    this.put({ isPlaying: true, timeMs: this.state.timeMs >= this.durationMs ? 0 : this.state.timeMs });
    this.before = performance.now();
    this.request = requestAnimationFrame(this.step);
  };
  halt = () => {
    cancelAnimationFrame(this.request);
    if (this.state.isPlaying) this.put({ isPlaying: false });
  };

  private step = (at: number) => {
    const { rate, loops, timeMs } = this.state;
    const next = timeMs + Math.max(0, at - this.before) * rate;
    this.before = at;
    if (next >= this.durationMs && !loops) {
      this.put({ timeMs: this.durationMs });
      return this.halt();
    }
    this.put({ timeMs: this.durationMs > 0 ? next % this.durationMs : 0 });
    this.request = requestAnimationFrame(this.step);
  };

  private put(part: Partial<ClockState>) {
    this.state = { ...this.state, ...part };
    this.heard.forEach((listener) => listener());
  }
}
