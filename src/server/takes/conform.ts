import { rename, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import type { MediaFacts } from '@/contract/footage';
import { readTakeEvents } from '@/core/take/read-events';
import type { TakeSetup, TrackSetup } from '@/core/take/setup';
import type { TakeEvent, TrackName } from '@/core/take/take';
import { ticksToSeconds } from '@/core/time/ticks';
import { Interrupted } from '../processes/interrupted';
import { probeMedia } from '../media/probe';
import { GUARDED_INPUT, runMedia } from '../media/process';
import { partPath, partSize, readEvents, takeFolder } from './files';

/** A track is brought to the take's clock when it would be off by more than this at its end. */
const DRIFT_SECONDS = 0.008;

export type ClockEvent = TakeEvent & { readonly type: 'clock' };

/** The last word on each track's clock. */
export function clocksOf(events: readonly TakeEvent[]): Partial<Record<TrackName, ClockEvent>> {
  const clocks: Partial<Record<TrackName, ClockEvent>> = {};
  for (const event of events) if (event.type === 'clock') clocks[event.track] = event;
  return clocks;
}

const finishedName = ({ name, type }: Pick<TrackSetup, 'name' | 'type'>): string =>
  `finished-${name}.${type === 'audio' ? 'wav' : 'mp4'}`;

/** The file of a track that is played and kept. */
export const finishedPath = (takeId: string, track: Pick<TrackSetup, 'name' | 'type'>): string =>
  join(takeFolder(takeId), finishedName(track));

/** Its name among the stored takes. */
export const finishedFile = (takeId: string, track: Pick<TrackSetup, 'name' | 'type'>): string =>
  `takes/${takeId}/${finishedName(track)}`;

/**
 * Makes of what was written while recording files with a length and an index, on the take's clock:
 * where a device's clock ran apart from it, times are stretched (pictures) or the sound is
 * resampled.
 *
 * @returns length of the longest track in seconds
 */
export async function conformTracks(
  takeId: string,
  setup: TakeSetup,
  signal: AbortSignal,
): Promise<number> {
  const clocks = clocksOf(readTakeEvents(await readEvents(takeId)));
  let longest = 0;
  for (const track of setup.tracks)
    longest = Math.max(
      longest,
      await conformTrack(takeId, track, clocks[track.name]?.rate ?? 1, signal),
    );
  return longest;
}

/**
 * What a file is; null for one that holds nothing, as one that ends in the middle of its first
 * piece.
 */
const factsIfAny = (path: string): Promise<MediaFacts | null> =>
  probeMedia(path).then(
    ({ facts }) => facts,
    (error: unknown) => {
      if (error instanceof Interrupted) throw error;
      return null;
    },
  );

/** Finishes one track, unless that was done before a break; answers its length in seconds. */
async function conformTrack(
  takeId: string,
  track: TrackSetup,
  rate: number,
  signal: AbortSignal,
): Promise<number> {
  const written = partPath(takeId, track.name, track);
  const target = finishedPath(takeId, track);
  if (!(await partSize(takeId, track.name, track))) {
    const done = (await isFinished(takeId, track)) ? await factsIfAny(target) : null;
    return done ? ticksToSeconds(done.duration) : 0;
  }
  const before = await factsIfAny(written);
  if (!before) return 0;
  const seconds = ticksToSeconds(before.duration);
  const drifts = Math.abs(rate - 1) * seconds > DRIFT_SECONDS;
  // Sound has its length already, and is finished as it is unless its clock ran apart.
  if (track.type === 'audio' && !drifts) await rename(written, target);
  else {
    const part = `${target}.part.${track.type === 'audio' ? 'wav' : 'mp4'}`;
    const args = finishing(track, written, drifts ? rate : 1);
    const done = await runMedia('ffmpeg', ['-v', 'error', '-nostdin', '-y', ...args, part], {
      signal,
    }).then(
      () => true,
      (error: unknown) => {
        if (error instanceof Interrupted || signal.aborted) throw error;
        // Where there is no room for a second copy, what was written is good enough to be kept.
        return false;
      },
    );
    if (done) {
      await rename(part, target);
      await rm(written);
    } else {
      await rm(part, { force: true });
      await rename(written, target);
    }
  }
  return seconds * rate;
}

function finishing(track: TrackSetup, written: string, rate: number): string[] {
  if (track.type === 'video')
    return [
      ...(rate === 1 ? [] : ['-itsscale', rate.toFixed(9)]),
      ...[
        ...GUARDED_INPUT,
        '-i',
        written,
        '-map',
        '0:v:0',
        '-c',
        'copy',
        '-video_track_timescale',
        '90000',
        '-movflags',
        '+faststart',
      ],
    ];
  return [
    ...[...GUARDED_INPUT, '-i', written],
    ...[
      '-af',
      `asetrate=${(track.sampleRate / rate).toFixed(3)},aresample=${track.sampleRate}:precision=28`,
    ],
  ];
}

/** Whether a track came to anything. */
export const isFinished = async (
  takeId: string,
  track: Pick<TrackSetup, 'name' | 'type'>,
): Promise<boolean> => !!(await stat(finishedPath(takeId, track)).catch(() => null))?.size;
