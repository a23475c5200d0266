/**
 * Hands the items of a list out to worker threads, each item once. A thread gets neighbours as long
 * as there are any, so that what it has open serves on; then it helps where most is left.
 */
export class Claims {
  private readonly taken: Int32Array;

  constructor(shared: SharedArrayBuffer) {
    this.taken = new Int32Array(shared);
  }

  /** Shared memory for so many items, none of them taken. */
  static memoryFor(items: number): SharedArrayBuffer {
    return new SharedArrayBuffer(items * Int32Array.BYTES_PER_ELEMENT);
  }

  /**
   * Takes an item.
   *
   * @param last the item that this thread had before, if it had one
   * @returns its index; null when all are taken
   */
  next(last: number | null): number | null {
    if (last !== null && this.take(last + 1)) return last + 1;
    for (;;) {
      const free = this.longestFree();
      if (!free) return null;
      // Who works towards a stretch goes on into it: the other half is for the newcomer.
      const at = free.from === 0 ? 0 : free.from + ((free.to - free.from) >> 1);
      if (this.take(at)) return at;
    }
  }

  private take(item: number): boolean {
    return item < this.taken.length && Atomics.compareExchange(this.taken, item, 0, 1) === 0;
  }

  /** The longest run of items that nobody has taken; the first of several. */
  private longestFree(): { from: number; to: number } | null {
    let longest: { from: number; to: number } | null = null;
    let from = 0;
    for (let i = 0; i <= this.taken.length; i++) {
      if (i < this.taken.length && !Atomics.load(this.taken, i)) continue;
      if (i > from && (!longest || i - from > longest.to - longest.from)) longest = { from, to: i };
      from = i + 1;
    }
    return longest;
  }
}
