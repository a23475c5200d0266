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

/** Columns and rows from `left` and `top` to before `right` and `bottom`. */
interface Bounds {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** The least rectangle with all that is marked; null where nothing is. */
function boundsOf(marked: Uint8Array, width: number, height: number): Bounds | null {
  let [left, top, right, bottom] = [width, -1, 0, 0];
  for (let y = 0; y < height; y++) {
    const row = y * width;
    const first = marked.indexOf(1, row) - row;
    if (first < 0 || first >= width) {
      // Nothing in this row, nor in all that follow.
      if (first < 0) break;
      continue;
    }
    if (top < 0) top = y;
    bottom = y + 1;
    left = Math.min(left, first);
    right = Math.max(right, marked.lastIndexOf(1, row + width - 1) - row + 1);
  }
  return top < 0 ? null : { left, top, right, bottom };
}

/**
 * Which pixels that are no person are enclosed by one: those from which no way leads to the left,
 * the upper or the right edge. The lower edge does not count, because that is where a person who
 * sits before a camera goes on.
 *
 * @param person 1 where a person is
 */
export function enclosed(person: Uint8Array, width: number, height: number): Uint8Array {
  const holes = new Uint8Array(person.length);
  const bounds = boundsOf(person, width, height);
  if (!bounds) return holes;
  // Nothing beyond the person is enclosed by them.
  const { left, top, right, bottom } = bounds;
  for (let y = top; y < bottom; y++)
    for (let i = y * width + left; i < y * width + right; i++) holes[i] = person[i] ? 0 : 1;
  const stack = new Stack((right - left) * (bottom - top));
  const open = (i: number) => {
    if (!holes[i]) return;
    holes[i] = 0;
    stack.push(i);
  };
  for (let x = left; x < right; x++) {
    open(top * width + x);
    if (bottom < height) open((bottom - 1) * width + x);
  }
  for (let y = top; y < bottom; y++) {
    open(y * width + left);
    open(y * width + right - 1);
  }
  for (let i = stack.pop(); i >= 0; i = stack.pop()) {
    const x = i % width;
    if (x > left) open(i - 1);
    if (x < right - 1) open(i + 1);
    if (i >= (top + 1) * width) open(i - width);
    if (i < (bottom - 1) * width) open(i + width);
  }
  return holes;
}
