/**
 * A map that forgets what was not used for longest, telling so, when it holds more than `limit`.
 */
export class LruMap<V> {
  private readonly entries = new Map<string, V>();

  constructor(
    private readonly limit: number,
    private readonly forget: (value: V) => void = () => {},
  ) {}

  /** The value of a key, made if it is not there. */
  get(key: string, make: () => V): V {
    const found = this.find(key);
    if (found !== undefined) return found;
    const made = make();
    this.set(key, made);
    return made;
  }

  /** The value of a key, if it is there; it counts as used. */
  find(key: string): V | undefined {
    const found = this.entries.get(key);
    if (found !== undefined) {
      this.entries.delete(key);
      this.entries.set(key, found);
    }
    return found;
  }

  /** Puts a value in the place of the one that the key has. */
  set(key: string, value: V): void {
    const old = this.entries.get(key);
    if (old !== undefined) {
      this.entries.delete(key);
      this.forget(old);
    }
    this.entries.set(key, value);
    if (this.entries.size > this.limit) {
      const [oldest, last] = this.entries.entries().next().value!;
      this.entries.delete(oldest);
      this.forget(last);
    }
  }
}
