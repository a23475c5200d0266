/*
 * The process ids of a render's decoders and encoders, in memory that its threads share with who
 * waits for them. A thread that reads from a decoder that hangs can do nothing itself: someone else
 * has to end the decoder.
 */

const SLOTS = 512;

let table: Int32Array | null = null;

/** Memory for the process ids of one render. */
export const pidMemory = (): SharedArrayBuffer =>
  new SharedArrayBuffer(SLOTS * Int32Array.BYTES_PER_ELEMENT);

/** From here on, the processes of this thread are noted there. */
export function notePidsIn(memory: SharedArrayBuffer): void {
  table = new Int32Array(memory);
}

/**
 * Notes a process; the answer takes the note back, and must be called before the process's id can
 * be another's.
 */
export function notePid(pid: number | undefined): () => void {
  const slots = table;
  if (!slots || !pid) return () => undefined;
  for (let i = 0; i < slots.length; i++)
    if (Atomics.compareExchange(slots, i, 0, pid) === 0)
      return () => void Atomics.compareExchange(slots, i, pid, 0);
  return () => undefined;
}

/** Ends all processes that are noted; answers how many. */
export function endNoted(memory: SharedArrayBuffer): number {
  const slots = new Int32Array(memory);
  let ended = 0;
  for (let i = 0; i < slots.length; i++) {
    const pid = Atomics.load(slots, i);
    if (!pid) continue;
    try {
      process.kill(pid, 'SIGKILL');
      ended++;
    } catch {
      // Gone already.
    }
  }
  return ended;
}
