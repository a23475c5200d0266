/** The clock of a take: the main clock without what passed while paused. Milliseconds. */
export class TakeClock {
  private pauses: { from: number; to: number }[] = [];
  private paused: number | null = null;

  constructor(private readonly began: number) {}

  pause(now: number): void {
    this.paused ??= now;
  }

  resume(now: number): void {
    if (this.paused !== null) this.pauses.push({ from: this.paused, to: now });
    this.paused = null;
  }

  /** Take time of a time on the main clock; null before the start and within a pause. */
  at(main: number): number | null {
    if (main < this.began || (this.paused !== null && main >= this.paused)) return null;
    let gone = 0;
    for (const { from, to } of this.pauses) {
      if (main < from) break;
      if (main < to) return null;
      gone += to - from;
    }
    return main - this.began - gone;
  }

  /** Take time now; stands still in a pause. */
  now(main: number): number {
    return this.at(this.paused ?? main) ?? this.at((this.paused ?? main) - 0.001) ?? 0;
  }
}
