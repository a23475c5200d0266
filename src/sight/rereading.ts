import type { PictureStream } from './recording';

/**
 * Pictures that are so far ahead are read on to: opening a recording anew starts a decoder, which
 * begins at the key frame before.
 */
const AHEAD = 60;

/** Reads stretches of a recording once more, in order of time. */
export class Rereading {
  private stream: PictureStream | null = null;
  /** The picture that comes next. */
  private next = 0;

  /**
   * @param open answers the recording from one of its pictures on
   * @param spare room for a picture that is passed over
   */
  constructor(
    private readonly open: (index: number) => PictureStream,
    private readonly spare: Uint8Array,
  ) {}

  /** Goes to a picture. */
  goTo(index: number): void {
    if (this.stream && index >= this.next && index - this.next <= AHEAD) {
      while (this.next < index && this.read(this.spare));
      if (this.next === index) return;
    }
    this.stream?.[Symbol.dispose]();
    this.stream = this.open(index);
    this.next = index;
  }

  /** Reads the next picture; false at the recording's end. */
  read(into: Uint8Array): boolean {
    if (!this.stream?.read(into)) return false;
    this.next++;
    return true;
  }

  [Symbol.dispose](): void {
    this.stream?.[Symbol.dispose]();
  }
}
