import { fitClock, type ClockFit, type ClockPair } from './clock';

const WINDOW_MS = 250;
/**
 * A device whose times part from the clock by more than this, for this many windows, was set anew
 * or slept.
 */
const JUMP_MS = 300;
const JUMP_WINDOWS = 4;
const MOST_PAIRS = 40_000;
/**
 * The first pieces of a stream may carry times that are far off; those this much before the usual
 * are not believed.
 */
const OUTLIER_MS = 250;
const RECENT = 64;

/**
 * Follows how a device's times lie on the main clock while a recording runs. `fix` decides on the
 * relation that the recording is written by; `fit` says afterwards how far that was right. All
 * times in milliseconds.
 */
export class TrackClock {
  private pairs: ClockPair[] = [];
  private readonly recent: number[] = [];
  private window: ClockPair | null = null;
  private windowEnd = -Infinity;
  private shift: number | null = null;
  private far = 0;
  /** How often the device's clock was found to have jumped. */
  jumps = 0;

  /** Notes a piece: its time on the device and when it arrived. */
  note(device: number, arrival: number): void {
    const pair = { device, arrival };
    if (this.shift === null) {
      this.recent.push(arrival - device);
      if (this.recent.length > RECENT) this.recent.shift();
    }
    if (arrival >= this.windowEnd) {
      this.closeWindow();
      this.window = pair;
      this.windowEnd = arrival + WINDOW_MS;
    } else if (
      !this.window ||
      pair.arrival - pair.device < this.window.arrival - this.window.device
    )
      this.window = pair;
  }

  private closeWindow(): void {
    const { window } = this;
    if (!window) return;
    if (this.shift !== null) {
      this.far = Math.abs(window.arrival - window.device - this.shift) > JUMP_MS ? this.far + 1 : 0;
      if (this.far >= JUMP_WINDOWS) {
        this.jumps++;
        this.far = 0;
        this.pairs = [];
        this.shift = window.arrival - window.device;
      }
    }
    if (this.pairs.length < MOST_PAIRS) this.pairs.push(window);
  }

  /** Fixes the relation from what was seen so far; false when nothing was. */
  fix(): boolean {
    this.closeWindow();
    this.window = null;
    this.windowEnd = -Infinity;
    if (!this.pairs.length) return false;
    const lags = [...this.recent].sort((a, b) => a - b);
    const usual = lags[lags.length >> 1]!;
    this.shift = lags.find((lag) => lag >= usual - OUTLIER_MS)!;
    this.pairs = this.pairs.filter((p) => p.arrival - p.device >= this.shift! - OUTLIER_MS);
    return true;
  }

  /** Time on the main clock of a time on the device, by the fixed relation. */
  toMain(device: number): number {
    if (this.shift === null) this.fix();
    return device + (this.shift ?? 0);
  }

  /**
   * How the written times (by the fixed relation) lie on the main clock, from all that was seen.
   */
  fit(): ClockFit {
    if (!this.pairs.length || this.shift === null || this.jumps) return { offset: 0, rate: 1 };
    const shift = this.shift;
    return fitClock(this.pairs.map((p) => ({ device: p.device + shift, arrival: p.arrival })));
  }
}
