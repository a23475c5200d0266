import { writeFile } from 'node:fs/promises';
import { ONSET_RATE, OnsetMeter } from '@/core/audio/onsets';
import { ticksToSeconds } from '@/core/time/ticks';
import { limit } from '../limits';
import { readMono } from '../media/mono-samples';
import type { AnalysisKind } from './kind';

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
    const take = (samples: Int16Array) => {
      meter.take(Float32Array.from(samples, (sample) => sample / 32768));
      heard += samples.length;
      report(Math.min(1, heard / length), 'Listening to the sound');
    };
    await readMono(path, ONSET_RATE, take, { signal, seconds: limit('ingestSeconds') });
    const base64 = Buffer.from(meter.result()).toString('base64');
    await writeFile(target, JSON.stringify({ onsets: base64 }));
    return { summary: {}, provenance: 'found', confidence: 1, notes: [] };
  },
};
