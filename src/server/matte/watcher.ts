import { firstLooks, lookAt, MODEL_SIDE, modelInput, modelOutput } from '@/core/matte/model-view';
import type { SmallPicture } from '@/core/matte/picture';
import type { Rect } from '@/core/scale/rect';
import type { PersonModel } from './person-model';

/** Fewer pixels than this share of the picture are nobody. */
const LEAST_PERSON = 0.004;
/** While nobody is seen, all of the picture is looked at only so often. */
const SEEK_EVERY = 5;

/** Keeps an eye on the person in a recording: looks where they were. */
export class Watcher {
  private readonly input = new Float32Array(MODEL_SIDE * MODEL_SIDE * 3);
  private box: Rect | null = null;
  private absent = 0;

  constructor(private readonly model: PersonModel) {}

  /** How surely each pixel of the next picture is of a person, 0 to 1. */
  look(picture: SmallPicture): Float32Array {
    const here = this.box && this.lookIn(picture, this.box);
    if (here && this.note(here, picture)) return here;
    this.box = null;
    if (this.absent++ % SEEK_EVERY) return new Float32Array(picture.width * picture.height);
    const looks = firstLooks(picture).map((box) => this.lookIn(picture, box));
    const best = looks.reduce((a, b) => (sumOf(b) > sumOf(a) ? b : a));
    if (!this.note(best, picture)) return best;
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
    modelInput(picture, box, this.input);
    return modelOutput(this.model.look(this.input), box, picture);
  }
}

/** How much of a picture is surely of a person, in pixels. */
function sumOf(sure: Float32Array): number {
  let sum = 0;
  for (const p of sure) if (p > 0.5) sum += p;
  return sum;
}
