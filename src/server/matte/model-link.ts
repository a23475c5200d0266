import type { Size } from '@/core/scale/rect';

/*
 * What passes between the thread that goes through a recording and the one that runs the model:
 * memory of both, and a word that says whose turn it is. Both wait for each other without their
 * event loops, because reading a recording waits too.
 */

/** Nobody wants anything. */
export const IDLE = 0;
/** A picture is to be looked at. */
export const ASKED = 1;
/** It was. */
export const ANSWERED = 2;
/** The model could not be loaded or run. */
export const BROKEN = 3;

const BYTES = 4;
/** The word, and the part of the picture as four numbers. */
const HEAD = 5 * BYTES;

/** Memory that both threads see, and the size of the pictures that pass through it. */
export interface LinkMemory {
  readonly memory: SharedArrayBuffer;
  readonly size: Size;
}

/** Memory for pictures of a size. */
export const linkMemory = (size: Size): LinkMemory => ({
  memory: new SharedArrayBuffer(HEAD + size.width * size.height * (BYTES + 3)),
  size,
});

/** The parts of that memory. */
export const linkOf = ({ memory, size }: LinkMemory) => {
  const count = size.width * size.height;
  return {
    state: new Int32Array(memory, 0, 1),
    /** Left, top, width and height of the part that is looked at. */
    box: new Float32Array(memory, BYTES, 4),
    /** How surely each pixel is of a person. */
    output: new Float32Array(memory, HEAD, count),
    /** The planes of the picture, one after the other. */
    input: new Uint8Array(memory, HEAD + count * BYTES, count * 3),
  };
};
