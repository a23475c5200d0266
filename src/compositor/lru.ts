/** What the values of a map weigh together at most. */
export interface Weights<V> {
  readonly most: number;
  readonly of: (value: V) => number;
}

/**
 * A map that forgets what was not used for longest, telling so, when it holds more than `limit`, or
 * more than its weight. What came last always stays.
 */
export class LruMap<V> {
  private readonly entries = new Map<string, V>();
  private weight = 0;

  constructor(
    private readonly limit: number,
    private readonly forget: (value: V) => void = () => {},
    private readonly weights: Weights<V> = { most: Infinity, of: () => 0 },
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
    this.remove(key);
    this.entries.set(key, value);
    this.weight += this.weights.of(value);
    while (this.isFull()) this.remove(this.entries.keys().next().value!);
  }

  private isFull(): boolean {
    const { size } = this.entries;
    return size > this.limit || (size > 1 && this.weight > this.weights.most);
  }

  private remove(key: string): void {
    const old = this.entries.get(key);
    if (old === undefined) return;
    this.entries.delete(key);
    this.weight -= this.weights.of(old);
    this.forget(old);
  }
}
