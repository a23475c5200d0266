import { createWriteStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { bytesInWords } from '../limits';
import { problem } from '../problem';

const tooLarge = (most: number) => problem('body-too-large', bytesInWords(most));

/** The body's pieces; what is over the limit is refused as it arrives, and nothing more is read. */
async function* piecesOf(request: Request, most: number): AsyncGenerator<Uint8Array> {
  if (Number(request.headers.get('content-length')) > most) throw tooLarge(most);
  if (!request.body) return;
  let size = 0;
  const reader = request.body.getReader();
  try {
    for (;;) {
      const { done, value } = await reader.read().catch(() => {
        throw problem('body-cut-off');
      });
      if (done) return;
      size += value.length;
      if (size > most) throw tooLarge(most);
      yield value;
    }
  } finally {
    void reader.cancel().catch(() => undefined);
  }
}

/**
 * The bytes of a request's body.
 *
 * @param most bytes that are taken
 * @throws Problem when it is larger, or ends before all of it has come
 */
export async function readBytes(request: Request, most: number): Promise<Uint8Array> {
  const pieces: Uint8Array[] = [];
  for await (const piece of piecesOf(request, most)) pieces.push(piece);
  return Buffer.concat(pieces);
}

/**
 * Writes a request's body to a file.
 *
 * @returns its size in bytes
 * @throws Problem when it is larger than `most`, or ends before all of it has come; nothing is left
 * then
 */
export async function bodyToFile(request: Request, path: string, most: number): Promise<number> {
  const out = createWriteStream(path);
  try {
    await pipeline(Readable.from(piecesOf(request, most)), out);
    return out.bytesWritten;
  } catch (error) {
    await rm(path, { force: true });
    throw error;
  }
}
