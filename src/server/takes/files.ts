import { open, readFile, stat, truncate } from 'node:fs/promises';
import { join } from 'node:path';
import type { TrackName } from '@/core/take/take';
import type { TrackSetup } from '@/core/take/setup';
import { dataFolder } from '../places';

/** The data that goes with the pictures and sound, one JSON value a line. */
export const EVENTS = 'events';
export type PartName = TrackName | typeof EVENTS;

const WAV_HEADER = 44;

export const takeFolder = (id: string): string => dataFolder('takes', id);

const fileName = (part: PartName, setup: TrackSetup | undefined): string =>
  part === EVENTS ? 'events.ndjson' : `${part}.${setup?.type === 'audio' ? 'wav' : 'mp4'}`;

export const partPath = (takeId: string, part: PartName, setup: TrackSetup | undefined): string =>
  join(takeFolder(takeId), fileName(part, setup));

/** A WAV header for 16-bit samples; lengths are written when the recording ends. */
export function wavHeader(
  { sampleRate, channels }: Pick<TrackSetup, 'sampleRate' | 'channels'>,
  bytes: number,
): Buffer {
  const header = Buffer.alloc(WAV_HEADER);
  header.write('RIFF', 0);
  header.writeUInt32LE(Math.min(0xffffffff, WAV_HEADER - 8 + bytes), 4);
  header.write('WAVEfmt ', 8);
  header.writeUInt32LE(16, 16);
  header.writeUInt16LE(1, 20);
  header.writeUInt16LE(channels, 22);
  header.writeUInt32LE(sampleRate, 24);
  header.writeUInt32LE(sampleRate * channels * 2, 28);
  header.writeUInt16LE(channels * 2, 32);
  header.writeUInt16LE(16, 34);
  header.write('data', 36);
  header.writeUInt32LE(Math.min(0xffffffff, bytes), 40);
  return header;
}

const headLength = (setup: TrackSetup | undefined) => (setup?.type === 'audio' ? WAV_HEADER : 0);

/** Bytes of a part that have arrived, without what the server wrote before them. */
export async function partSize(
  takeId: string,
  part: PartName,
  setup: TrackSetup | undefined,
): Promise<number> {
  const info = await stat(partPath(takeId, part, setup)).catch(() => null);
  return info ? Math.max(0, info.size - headLength(setup)) : 0;
}

/**
 * Adds bytes to a part at an offset. What is there already is not written again, so that a piece
 * may be sent twice.
 * @returns the part's size afterwards; smaller than `offset` when something before it is missing
 */
export async function appendPart(
  takeId: string,
  part: PartName,
  setup: TrackSetup | undefined,
  offset: number,
  bytes: Uint8Array,
): Promise<number> {
  const path = partPath(takeId, part, setup);
  const size = await partSize(takeId, part, setup);
  if (offset > size) return size;
  const fresh = bytes.subarray(size - offset);
  if (!fresh.length) return size;
  const head = headLength(setup);
  const handle = await open(path, 'a');
  try {
    if (head && !size && !(await handle.stat()).size) await handle.write(wavHeader(setup!, 0));
    let written = 0;
    try {
      while (written < fresh.length) written += (await handle.write(fresh, written)).bytesWritten;
    } catch (error) {
      // A piece that was written in part would shift what follows.
      await truncate(path, head + size).catch(() => undefined);
      throw error;
    }
  } finally {
    await handle.close();
  }
  return size + fresh.length;
}

/** Writes the lengths into the header of a sound that is complete. */
export async function closeSound(takeId: string, setup: TrackSetup): Promise<void> {
  const size = await partSize(takeId, setup.name, setup);
  if (!size) return;
  const handle = await open(partPath(takeId, setup.name, setup), 'r+');
  try {
    await handle.write(wavHeader(setup, size), 0, WAV_HEADER, 0);
  } finally {
    await handle.close();
  }
}

/** The text of a take's data as far as it was written. */
export const readEvents = (takeId: string): Promise<string> =>
  readFile(partPath(takeId, EVENTS, undefined), 'utf8').catch(() => '');
