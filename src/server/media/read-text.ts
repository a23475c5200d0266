import { spawnSync } from 'node:child_process';
import type { ReadWord } from '@/core/private/read-text';
import type { Luma } from '@/core/vision/luma';
import { problem } from '../problem';

/** Longer than this no picture takes to be read, in milliseconds. */
const MOST = 120_000;
/** Words that are less sure than this are dirt, of 100. */
const LEAST_SURE = 20;

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
 * top, width, height, confidence and text, by tabs. Answers them line by line.
 */
export function wordsIn(table: string): ReadWord[][] {
  const lines = new Map<string, ReadWord[]>();
  for (const row of table.split('\n')) {
    const cells = row.split('\t');
    const [level, page, block, paragraph, line, , ...more] = cells;
    const [x, y, width, height, sure] = more.slice(0, 5).map(Number) as [
      ...[number, number, number, number, number],
    ];
    const text = more.slice(5).join('\t').trim();
    if (level !== '5' || !text || !(sure >= LEAST_SURE)) continue;
    const key = [page, block, paragraph, line].join(' ');
    const word = { text, rect: { x, y, width, height }, confidence: sure / 100 };
    lines.set(key, [...(lines.get(key) ?? []), word]);
  }
  return [...lines.values()];
}

/**
 * Reads the words in a picture with Tesseract, which has to be there; for tools, which wait for it.
 *
 * @throws Problem where it is missing or fails
 */
export function readPicture(picture: Luma): ReadWord[][] {
  const { error, status, stdout } = spawnSync(
    'tesseract',
    ['stdin', 'stdout', '-l', 'eng', '--psm', '11', 'tsv'],
    {
      ...{ input: graymap(picture), encoding: 'utf8', timeout: MOST, maxBuffer: 64 << 20 },
      // Two threads of it are slower than one, and others work here too.
      env: { ...process.env, OMP_THREAD_LIMIT: '1' },
      stdio: ['pipe', 'pipe', 'ignore'],
    },
  );
  if (error && 'code' in error && error.code === 'ENOENT') throw problem('no-reader');
  if (error ?? status !== 0) throw problem('not-read');
  return wordsIn(stdout);
}
