import { distance } from 'fastest-levenshtein';
import type { Rect } from '../scale/rect';
import { digitsOf } from './numbers';
import { plainOf, type PrivateKind } from './patterns';
import { hintOf, type PrivateText } from './read-text';

/** A time in which private data stands at one place, in milliseconds of the recording. */
export interface PrivateStretch {
  readonly from: number;
  readonly to: number;
  /** In pixels of the recording. */
  readonly rect: Rect;
}

/** Private data that a recording shows. */
export interface PrivateFound {
  readonly kind: PrivateKind;
  /** Its first and last signs, for its owner. */
  readonly hint: string;
  readonly confidence: number;
  /** In order of time. */
  readonly stretches: readonly PrivateStretch[];
}

/** A place is the same within so many pixels: reading finds its edges anew each time. */
const SAME = 6;
/** It went on, under the pointer perhaps, if it is read again within so many milliseconds. */
const GAP = 10_000;
/** Texts at one place of which this share of the signs differs at most were read twice. */
const MISREAD = 0.15;

interface Sighting {
  readonly kind: PrivateKind;
  readonly text: string;
  confidence: number;
  rect: Rect;
  readonly from: number;
  to: number;
  /** It went with much of the page, and is not what stands there later. */
  gone: boolean;
}

const isSameText = (a: string, b: string): boolean => {
  const [one, other] = [plainOf(a), plainOf(b)];
  return one === other || distance(one, other) <= MISREAD * Math.max(one.length, other.length);
};

/**
 * Whether texts that were read at two places are of one thing: letters are misread, but two numbers
 * that differ by a digit are two.
 */
const isSameThing = (a: string, b: string): boolean =>
  digitsOf(a) === digitsOf(b) && isSameText(a, b);

/** Whether two places are the same but for what reading makes of their edges. */
const isNear = (a: Rect, b: Rect): boolean =>
  Math.abs(a.x - b.x) <= SAME &&
  Math.abs(a.y - b.y) <= SAME &&
  Math.abs(a.x + a.width - b.x - b.width) <= SAME &&
  Math.abs(a.y + a.height - b.y - b.height) <= SAME;

/** Keeps what private data was read when, from one picture of a recording to the next. */
export class PrivateLog {
  private readonly all: Sighting[] = [];
  private open: Sighting[] = [];

  /**
   * Something changed: what stands where it did is seen up to here, unless it is read again.
   *
   * @param much whether much of the page changed with it
   */
  changed(ms: number, touches: (rect: Rect) => boolean, much: boolean): void {
    this.open = this.open.filter((one) => {
      if (!touches(one.rect)) return true;
      Object.assign(one, { to: ms, gone: much });
      return false;
    });
    // The rest of the page may go in the next pictures.
    if (much) for (const one of this.all) if (one.to !== Infinity) one.gone = true;
  }

  /**
   * A part of the picture was read.
   *
   * @param since tells from when on a place has looked as it does
   */
  read(ms: number, texts: readonly PrivateText[], since: (rect: Rect) => number): void {
    for (const { kind, text, rect, confidence } of texts) {
      const isThere = (one: Sighting) =>
        one.kind === kind && isNear(one.rect, rect) && isSameText(one.text, text);
      const going = this.open.find(isThere);
      if (going) {
        going.confidence = Math.max(going.confidence, confidence);
        continue;
      }
      const before = this.all.findLast(
        (one) => !one.gone && isThere(one) && since(rect) - one.to <= GAP,
      );
      if (before) {
        before.confidence = Math.max(before.confidence, confidence);
        this.open.push(before);
        continue;
      }
      const from = Math.min(ms, since(rect));
      const fresh = { kind, text, rect, confidence, from, to: Infinity, gone: false };
      this.all.push(fresh);
      this.open.push(fresh);
    }
    for (const one of this.open) one.to = Infinity;
  }

  /** All that was found, when the recording is over: what is the same text is one. */
  found(end: number): PrivateFound[] {
    const groups: Sighting[][] = [];
    for (const one of this.all) {
      one.to = Math.min(one.to, end);
      const group = groups.find((others) =>
        others.every(
          (other) =>
            other.kind === one.kind &&
            isSameThing(other.text, one.text) &&
            // What is seen at two places at once is there twice.
            (other.to <= one.from || one.to <= other.from),
        ),
      );
      if (group) group.push(one);
      else groups.push([one]);
    }
    return groups.map((group) => ({
      kind: group[0]!.kind,
      hint: hintOf(group[0]!.text),
      confidence: Math.max(...group.map(({ confidence }) => confidence)),
      stretches: group.map(({ from, to, rect }) => ({ from, to, rect })),
    }));
  }
}
