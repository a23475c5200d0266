/** Views of the eight bytes of memory that the threads of a render and who waits for them share. */
export const threadState = (shared: SharedArrayBuffer) => ({
  /** How many frames all threads have done. */
  done: new Int32Array(shared, 0, 1),
  /** 1 when they are to end. */
  stopped: new Int32Array(shared, 4, 1),
});
