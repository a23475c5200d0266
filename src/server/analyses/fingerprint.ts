import { createHash } from 'node:crypto';
import { open } from 'node:fs/promises';

const PIECES = 16;
const PIECE = 64 << 10;

/**
 * What tells a recording's content: a SHA-256 of its size and of sixteen pieces spread over it.
 * Reading gigabytes whole would take longer than most analyses; two recordings of one size that are
 * the same in all of these pieces do not come about by chance.
 */
export async function fingerprint(path: string): Promise<string> {
  const file = await open(path);
  try {
    const { size } = await file.stat();
    const hash = createHash('sha256').update(String(size));
    const buffer = Buffer.alloc(PIECE);
    for (let i = 0; i < PIECES; i++) {
      const at = Math.floor((Math.max(0, size - PIECE) * i) / (PIECES - 1));
      const { bytesRead } = await file.read(buffer, 0, PIECE, at);
      hash.update(buffer.subarray(0, bytesRead));
    }
    return hash.digest('hex');
  } finally {
    await file.close();
  }
}
