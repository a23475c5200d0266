import { firstLooks, lookAt } from '@/core/matte/model-view';
import type { SmallPicture } from '@/core/matte/picture';
import type { Rect } from '@/core/scale/rect';
import type { ModelHost } from './model-host';

/** Fewer pixels than this share of the picture are nobody. */
export const LEAST_PERSON = 0.004;

/** Keeps an eye on the person in a recording: looks where they were. */
export class Watcher {
  private box: Rect | null = null;
  private absent = 0;
  private asked: { readonly picture: SmallPicture; readonly box: Rect | null } | null = null;

  constructor(private readonly model: ModelHost) {}

  /** Has a picture looked at. What comes of it is told by `seen`, before the next is asked for. */
  look(picture: SmallPicture): void {
    this.asked = { picture, box: this.box };
    if (this.box) this.model.ask(picture, this.box);
  }

  /** How surely each pixel of the picture that is looked at is of a person, 0 to 1. Waits for it. */
  seen(): Float32Array {
    const { picture, box } = this.asked!;
    const here = box && this.model.answer();
    if (here && this.note(here, picture)) return here;
    this.box = null;
    // One of the ways after the other: somebody who comes is found two pictures later at most.
    const looks = firstLooks(picture);
    const found = this.lookIn(picture, looks[this.absent++ % looks.length]!);
    if (!this.note(found, picture)) return found;
    this.absent = 0;
    // Once more, now that it is known where they are.
    return this.lookIn(picture, this.box!);
  }

  private note(sure: Float32Array, picture: SmallPicture): boolean {
    const there = sumOf(sure) >= LEAST_PERSON * sure.length;
    this.box = there ? lookAt(sure, picture) : null;
    return there;
  }

  private lookIn(picture: SmallPicture, box: Rect): Float32Array {
    this.model.ask(picture, box);
    return this.model.answer();
  }
}

/** How much of a picture is surely of a person, in pixels. */
function sumOf(sure: Float32Array): number {
  let sum = 0;
  for (const p of sure) if (p > 0.5) sum += p;
  return sum;
}
