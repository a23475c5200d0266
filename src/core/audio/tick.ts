import { looksAt } from '../pointer/looks-at';
import { pressesIn } from '../pointer/presses';
import type { Project } from '../project/model';
import { visibleClip } from '../project/query';
import type { Sources } from '../project/sources';
import { ticksToSeconds } from '../time/ticks';
import { fromDecibels } from './levels';
import { SAMPLE_RATE, silence, type SoundSegment, type Stereo } from './mix';

/** Stands for the sound of a press where segments name their footage; no footage is called so. */
export const TICK_SOUND = 'vistum:tick';

/** Length of the sound in samples. */
const LENGTH = Math.round(0.04 * SAMPLE_RATE);
const PEAK = 0.9;
/** A press that was inferred from the picture is heard from this confidence on. */
const SURE = 0.5;

/** A knock: a damped tone with a burst of noise before it, the same each time. */
function knock(): Float32Array {
  let seed = 1;
  const noise = () => {
    // The generator of D. H. Lehmer, as by S. K. Park and K. W. Miller (1988).
    seed = (seed * 48_271) % 2_147_483_647;
    return (seed / 2_147_483_647) * 2 - 1;
  };
  const sound = Float32Array.from({ length: LENGTH }, (_, i) => {
    const t = i / SAMPLE_RATE;
    const tone = Math.sin(2 * Math.PI * 1700 * t) * Math.exp(-t / 0.005);
    return tone + 0.7 * noise() * Math.exp(-t / 0.0012);
  });
  const peak = sound.reduce((most, s) => Math.max(most, Math.abs(s)), 0);
  return sound.map((s) => (s * PEAK) / peak);
}

let made: Float32Array | null = null;

/** Reads the sound of a press, which is the same left and right; silence beyond it. */
export function readTick(from: number, count: number): Promise<Stereo> {
  made ??= knock();
  const out = silence(count);
  const first = Math.max(0, from);
  const last = Math.min(LENGTH, from + count);
  if (last > first) for (const side of out) side.set(made.subarray(first, last), first - from);
  return Promise.resolve(out);
}

/**
 * The sounds of presses, where a look of the pointer asks for them: of the presses that are seen,
 * and, of those that were inferred, of the likely ones.
 */
export function tickSegments(project: Project, sources: Sources): SoundSegment[] {
  return project.pointer
    .filter(({ looks }) => looks.some(({ kind }) => kind === 'tick'))
    .flatMap((span) =>
      pressesIn(project, sources, span.start, span.end - 1).flatMap(
        ({ time, clip, confidence }): SoundSegment[] => {
          const now = looksAt(project.pointer, time).find(({ look }) => look.kind === 'tick');
          if (now?.look.kind !== 'tick' || now.span !== span || confidence < SURE) return [];
          if (visibleClip(project, 'screen', time) !== clip) return [];
          const start = Math.round(ticksToSeconds(time) * SAMPLE_RATE);
          return [
            {
              ...{ laneId: TICK_SOUND, clipId: `${TICK_SOUND} ${clip.id} ${time}` },
              ...{ footageId: TICK_SOUND, start, end: start + LENGTH, source: 0, speed: 1 },
              gain: fromDecibels(now.look.level) * now.strength,
              ...{ fadeIn: 0, fadeOut: 0, envelope: [] },
            },
          ];
        },
      ),
    );
}
