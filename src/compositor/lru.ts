/** A map that forgets what was not used for longest, telling so, when it holds more than `limit`. */
export class LruMap<V> {
  private readonly entries = new Map<string, V>();

  constructor(
    private readonly limit: number,
    private readonly forget: (value: V) => void = () => {},
  ) {}

  /** The value of a key, made if it is not there. */
  get(key: string, make: () => V): V {
    const found = this.entries.get(key);
    if (found !== undefined) {
      this.entries.delete(key);
      this.entries.set(key, found);
      return found;
    }
    const made = make();
    this.entries.set(key, made);
    if (this.entries.size > this.limit) {
      const [oldest, value] = this.entries.entries().next().value!;
      this.entries.delete(oldest);
      this.forget(value);
    }
    return made;
  }
}
