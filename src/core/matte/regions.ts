/*
 * Connected parts of a picture: holes within a person, and what is none of them.
 */

/** Indices that are to be looked at, first come last served. */
class Stack {
  private readonly items: Int32Array;
  private size = 0;

  constructor(most: number) {
    this.items = new Int32Array(most);
  }

  push(item: number): void {
    this.items[this.size++] = item;
  }

  pop(): number {
    return this.size ? this.items[--this.size]! : -1;
  }
}

/**
 * Numbers the connected parts of what is marked (beside, above and below each other), from 1 on.
 *
 * @returns a number for each pixel, 0 where nothing is marked, and how many pixels each part has
 */
export function partsOf(
  marked: Uint8Array,
  width: number,
  height: number,
): { readonly labels: Int32Array; readonly sizes: number[] } {
  const labels = new Int32Array(width * height);
  const sizes = [0];
  const stack = new Stack(width * height);
  const visit = (i: number, label: number) => {
    if (!marked[i] || labels[i]) return;
    labels[i] = label;
    stack.push(i);
  };
  for (let start = 0; start < labels.length; start++) {
    if (!marked[start] || labels[start]) continue;
    const label = sizes.length;
    let size = 0;
    visit(start, label);
    for (let i = stack.pop(); i >= 0; i = stack.pop()) {
      size++;
      const x = i % width;
      if (x > 0) visit(i - 1, label);
      if (x < width - 1) visit(i + 1, label);
      if (i >= width) visit(i - width, label);
      if (i < width * (height - 1)) visit(i + width, label);
    }
    sizes.push(size);
  }
  return { labels, sizes };
}

/**
 * Which pixels that are no person are enclosed by one: those from which no way leads to the left,
 * the upper or the right edge. The lower edge does not count, because that is where a person who
 * sits before a camera goes on.
 *
 * @param person 1 where a person is
 */
export function enclosed(person: Uint8Array, width: number, height: number): Uint8Array {
  const others = new Uint8Array(person.length);
  for (let i = 0; i < others.length; i++) others[i] = person[i] ? 0 : 1;
  const { labels, sizes } = partsOf(others, width, height);
  const open = new Uint8Array(sizes.length);
  for (let x = 0; x < width; x++) open[labels[x]!] = 1;
  for (let y = 0; y < height; y++) {
    open[labels[y * width]!] = 1;
    open[labels[y * width + width - 1]!] = 1;
  }
  // Nothing is marked where the person is, and so is never enclosed.
  open[0] = 1;
  for (let i = 0; i < others.length; i++) others[i] = open[labels[i]!] ? 0 : 1;
  return others;
}
