import { writeFile } from 'node:fs/promises';
import { ONSET_RATE, OnsetMeter } from '@/core/audio/onsets';
import { ticksToSeconds } from '@/core/time/ticks';
import { limit } from '../limits';
import { GUARDED_INPUT, runMedia } from '../media/process';
import type { AnalysisKind } from './kind';

/** Takes 16-bit samples as bytes, in pieces that may end within a sample. */
function samplesOf(take: (samples: Float32Array) => void): (bytes: Buffer) => void {
  let rest: Buffer = Buffer.alloc(0);
  return (bytes) => {
    const all = rest.length ? Buffer.concat([rest, bytes]) : bytes;
    const count = all.length >> 1;
    take(Float32Array.from({ length: count }, (_, i) => all.readInt16LE(i * 2) / 32768));
    rest = all.subarray(count * 2);
  };
}

/** Where sounds begin in a recording, by which it is lined up with others that heard the same. */
export const onsets: AnalysisKind = {
  version: 1,
  needs: 'sound',
  repeatable: true,
  seconds: () => limit('ingestSeconds'),
  async run(_context, { path, facts, target }, { signal, report }) {
    const meter = new OnsetMeter();
    const length = ticksToSeconds(facts.duration) * ONSET_RATE || 1;
    let heard = 0;
    const take = samplesOf((samples) => {
      meter.take(samples);
      heard += samples.length;
      report(Math.min(1, heard / length), 'Listening to the sound');
    });
    const resampled = ['-af', `aresample=${ONSET_RATE}:async=1000:first_pts=0`, '-ac', '1'];
    await runMedia(
      'ffmpeg',
      [
        ...['-v', 'error', '-nostdin', ...GUARDED_INPUT, '-i', path],
        ...['-map', '0:a:0', '-vn', ...resampled, '-f', 's16le', 'pipe:1'],
      ],
      { signal, seconds: limit('ingestSeconds'), onOutput: take },
    );
    const base64 = Buffer.from(meter.result()).toString('base64');
    await writeFile(target, JSON.stringify({ onsets: base64 }));
    return { summary: {}, provenance: 'found', confidence: 1, notes: [] };
  },
};
