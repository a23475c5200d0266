const FLASH_MS = 120;

/**
 * Tells the workers of the practice devices when to flash, and stamps their frames. Milliseconds on
 * the worker's clock.
 */
export class Flash {
  /** Infinity while none is announced. */
  at = Infinity;
  private last = -1;

  /** Announces a flash at a time in milliseconds since 1970. */
  announce(since1970: number): void {
    this.at = since1970 - performance.timeOrigin;
  }

  /** However late a worker comes to it, one of its frames flashes. */
  isOn = (now: number): boolean =>
    now >= this.at && (this.last < this.at * 1000 || now < this.at + FLASH_MS);

  /** How long until it begins or ends; null when there is none to wait for. */
  wait(now: number): number | null {
    if (now < this.at) return this.at === Infinity ? null : this.at - now;
    return this.isOn(now) ? Math.max(1, this.at + FLASH_MS - now) : null;
  }

  /**
   * Time of a frame in microseconds, always later than the last. A flash is seen at its own
   * instant, however late it is drawn.
   */
  stamp(now: number): number {
    const wanted = this.isOn(now) && this.last < this.at * 1000 ? this.at : now;
    this.last = Math.max(Math.round(wanted * 1000), this.last + 1);
    return this.last;
  }
}
