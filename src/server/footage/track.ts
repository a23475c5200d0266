import { readFile } from 'node:fs/promises';
import { parsePointerTrack, PointerTrackError } from '@/core/telemetry/parse';
import type { PointerTrack } from '@/core/telemetry/pointer-track';
import { scaleTrack } from '@/core/telemetry/sample';
import type { Size } from '@/core/scale/rect';
import type { ServerContext } from '../context';
import { mediaFactsOf } from '../db/rows/footage';
import { bytesInWords, limit } from '../limits';
import { problem } from '../problem';
import { trackFile } from './names';
import { findFootage } from './view';

/** The pointer track of a recording, in its pixels. */
export const readTrack = async (
  { stores }: ServerContext,
  id: string,
  size: Size,
): Promise<PointerTrack> => readTrackFile(await stores.files.path(trackFile(id)), size);

/** A pointer track that Vistum wrote, in the pixels of a recording of some size. */
export async function readTrackFile(path: string, size: Size): Promise<PointerTrack> {
  const text = await readFile(path, 'utf8');
  return scaleTrack(JSON.parse(text) as PointerTrack, size.width, size.height);
}

/**
 * Size of the recording that a track is to be attached to.
 *
 * @throws Problem while it is not known, or when there is no picture
 */
export async function sizeForTrack(context: ServerContext, id: string): Promise<Size> {
  const facts = mediaFactsOf(await findFootage(context, id));
  if (!facts?.hasVideo) throw problem('footage-not-ready');
  return { width: facts.width, height: facts.height };
}

/**
 * Reads the text of a pointer track and mends what can be mended.
 *
 * @throws Problem with a sentence when it is none
 */
export function readTrackText(text: string, size: Size) {
  if (text.length > limit('track')) throw problem('track-too-large', bytesInWords(limit('track')));
  try {
    return parsePointerTrack(text, size);
  } catch (error) {
    if (error instanceof PointerTrackError) throw problem('track-unreadable', error.message);
    throw error;
  }
}
