import { spawnSync } from 'node:child_process';
import type { ReadWord } from '@/core/private/read-text';
import type { Luma } from '@/core/vision/luma';
import { problem } from '../problem';

/** Longer than this no picture takes to be read, in milliseconds. */
const MOST = 120_000;

/** Letters of up to this width of a picture are small, and are read twice as large. */
const SMALL = 2200;

/** A picture twice as large each way: what is between samples is the mean of those beside it. */
function doubled({ data, stride, width, height }: Luma): Luma & { readonly data: Uint8Array } {
  const [w, h] = [width * 2, height * 2];
  const made = new Uint8Array(w * h);
  for (let y = 0; y < height; y++) {
    const own = y * stride;
    const next = Math.min(y + 1, height - 1) * stride;
    for (let x = 0, at = 2 * y * w; x < width; x++, at += 2) {
      const right = Math.min(x + 1, width - 1);
      const [a, b, c, d] = [
        data[own + x]!,
        data[own + right]!,
        data[next + x]!,
        data[next + right]!,
      ];
      made[at] = a;
      made[at + 1] = (a + b) >> 1;
      made[at + w] = (a + c) >> 1;
      made[at + w + 1] = (a + b + c + d) >> 2;
    }
  }
  return { data: made, stride: w, width: w, height: h };
}

/** A picture as a portable graymap (Netpbm's PGM), which needs no compressing. */
function graymap({ data, stride, width, height }: Luma): Buffer {
  const head = Buffer.from(`P5\n${width} ${height}\n255\n`);
  const file = Buffer.alloc(head.length + width * height);
  head.copy(file);
  for (let y = 0; y < height; y++)
    file.set(data.subarray(y * stride, y * stride + width), head.length + y * width);
  return file;
}

/**
 * The words in what Tesseract answers as a table: level, page, block, paragraph, line, word, left,
 * top, width, height, confidence and text, with tabs between.
 *
 * @param scale times as large as the picture that was meant
 */
export const wordsIn = (table: string, scale: number): ReadWord[] =>
  table.split('\n').flatMap((row) => {
    const [level, , , , , , ...more] = row.split('\t');
    const [x = 0, y = 0, width = 0, height = 0] = more.slice(0, 4).map((n) => Number(n) / scale);
    const sure = Number(more[4]);
    const text = more.slice(5).join('\t').trim();
    if (level !== '5' || !text || !(sure >= 0)) return [];
    return [{ text, rect: { x, y, width, height }, confidence: sure / 100 }];
  });

/**
 * Reads the words in a picture with Tesseract, which has to be there; for tools, which wait for it.
 *
 * @throws Problem where it is missing or fails
 */
export function readPicture(picture: Luma): ReadWord[] {
  const scale = picture.width <= SMALL ? 2 : 1;
  const input = graymap(scale === 2 ? doubled(picture) : picture);
  const { error, status, stdout } = spawnSync(
    'tesseract',
    ['stdin', 'stdout', '-l', 'eng', '--psm', '11', 'tsv'],
    {
      ...{ input, encoding: 'utf8', timeout: MOST, maxBuffer: 64 << 20 },
      // Two threads of it are slower than one, and others work here too.
      env: { ...process.env, OMP_THREAD_LIMIT: '1' },
      stdio: ['pipe', 'pipe', 'ignore'],
    },
  );
  if (error && 'code' in error && error.code === 'ENOENT') throw problem('no-reader');
  if (error ?? status !== 0) throw problem('not-read');
  return wordsIn(stdout, scale);
}
