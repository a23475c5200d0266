/** A source that stands still gives no frames; its last one is written again this often. */
const REPEAT_MS = 500;
/**
 * So many frames may come at once, and this share of a frame's time must have passed for one to be
 * taken.
 */
const BURST = 2;
const LEAST_ROOM = 0.7;

/**
 * Decides which pictures of a source are written, and at which times: milliseconds on the take's
 * clock, each later than the one before. No more than wanted for a second, and none while the
 * encoder is full; a picture that was left out and still stands is written later at its own time,
 * so that what it shows is not seen later than it was.
 */
export class Pacing {
  private room = BURST;
  private offered = 0;
  private last = -1;
  /** Time of the picture that stands now, when it was not written. */
  private owed: number | null = null;

  /** Frames for each second at most. */
  constructor(private readonly rate: number) {}

  /** Time at which a picture that came at a time is written; null when it is left out for now. */
  offer(time: number, full: boolean): number | null {
    // Frames come unevenly; what counts is that there are not more than wanted over a few of them.
    this.room = Math.min(BURST, this.room + ((time - this.offered) / 1000) * this.rate);
    this.offered = time;
    if (full || this.room < LEAST_ROOM) {
      this.owed = time;
      return null;
    }
    return this.write(time);
  }

  /**
   * Time at which the picture that stands is written: one that was left out, or one for which
   * nothing new has come for a while. Null when there is none to write.
   */
  again(now: number, full: boolean): number | null {
    if (full || now - this.last < (this.owed === null ? REPEAT_MS : 1000 / this.rate)) return null;
    return this.write(this.owed ?? now);
  }

  /**
   * Times at which the picture that stands is written at an end: at its own when it was left out,
   * and once more so that it lasts.
   */
  end(time: number): number[] {
    const frame = 1000 / this.rate;
    const own = this.owed === null ? [] : [this.write(this.owed)];
    return time - this.last > frame ? [...own, this.write(time - frame)] : own;
  }

  private write(wanted: number): number {
    this.room = Math.max(-1, this.room - 1);
    this.owed = null;
    // A picture that was taken a moment before its predecessor was written again is still news.
    this.last = Math.max(wanted, this.last + 1);
    return this.last;
  }
}
