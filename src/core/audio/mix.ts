import { fromDecibels } from './levels';
import { timelineTime } from '../project/clip-time';
import { isLaneOn, isPictureLane } from '../project/query';
import type { Clip, Project } from '../project/model';
import type { Sources } from '../project/sources';
import { ticksToSeconds } from '../time/ticks';

export const SAMPLE_RATE = 48_000;
export const CHANNELS = 2;

/** A stretch of one recording's sound on the timeline; all in samples at 48 kHz. */
export interface SoundSegment {
  readonly laneId: string;
  readonly clipId: string;
  readonly footageId: string;
  readonly start: number;
  readonly end: number;
  /** Sample of the footage that is heard at `start`. */
  readonly source: number;
  /** Footage samples for one sample of the mix; its pitch stays. */
  readonly speed: number;
  /** Linear. */
  readonly gain: number;
  /** Length of the fades that keep a cut from clicking; 0 where the recording simply goes on. */
  readonly fadeIn: number;
  readonly fadeOut: number;
  /**
   * Level over time, `[sample after start, dB]`, in order; straight lines between, the nearest
   * outside. Empty for none.
   */
  readonly envelope: readonly (readonly [number, number])[];
}

const EDGE_FADE = 240;

/** Whether a recording simply goes on from one clip to the next, so that nothing can click. */
const goesOn = (a: Clip | undefined, b: Clip | undefined): boolean =>
  !!a &&
  !!b &&
  a.footageId === b.footageId &&
  a.start + a.duration === b.start &&
  a.source + a.duration === b.source &&
  a.speed === 1 &&
  b.speed === 1 &&
  a.muted === b.muted &&
  a.gain === b.gain;

/** Everything that is heard, as stretches on the sample grid, in order of their start. */
export function soundSegments(project: Project, sources: Sources): SoundSegment[] {
  const toSamples = (ticks: number) => Math.round(ticksToSeconds(ticks) * SAMPLE_RATE);
  const segments: SoundSegment[] = [];
  for (const lane of project.lanes) {
    if (isPictureLane(lane) || !isLaneOn(project, lane)) continue;
    lane.clips.forEach((clip, i) => {
      if (!sources.footage[clip.footageId]?.hasAudio || clip.muted || clip.speed === 0) return;
      const before = lane.clips[i - 1];
      const after = lane.clips[i + 1];
      segments.push({
        laneId: lane.id,
        clipId: clip.id,
        footageId: clip.footageId,
        start: toSamples(clip.start),
        end: toSamples(clip.start + clip.duration),
        source: toSamples(clip.source),
        gain: fromDecibels(clip.gain + lane.gain),
        speed: clip.speed,
        fadeIn: toSamples(clip.fadeIn) || (goesOn(before, clip) ? 0 : EDGE_FADE),
        fadeOut: toSamples(clip.fadeOut) || (goesOn(clip, after) ? 0 : EDGE_FADE),
        envelope: clip.envelope.map(
          ([at, dB]) => [toSamples(timelineTime(clip, at) - clip.start), dB] as const,
        ),
      });
    });
  }
  return segments.sort((a, b) => a.start - b.start);
}

/** Planar stereo samples. */
export type Stereo = readonly [Float32Array, Float32Array];

/** An empty stretch of sound. */
export const silence = (length: number): Stereo => [
  new Float32Array(length),
  new Float32Array(length),
];

/**
 * Adds a stretch of one recording to a mix, with its gain and edge fades.
 *
 * @param mix begins at timeline sample `at`
 * @param sound begins at timeline sample `from`; what lies outside the segment or the mix is left
 * out
 */
export function addToMix(
  mix: Stereo,
  at: number,
  segment: SoundSegment,
  sound: Stereo,
  from: number,
): void {
  const first = Math.max(at, from, segment.start);
  const last = Math.min(at + mix[0].length, from + sound[0].length, segment.end);
  const level = envelopeReader(segment.envelope);
  for (let t = first; t < last; t++) {
    let gain = segment.gain * level(t - segment.start);
    if (t - segment.start < segment.fadeIn) gain *= (t - segment.start) / segment.fadeIn;
    if (segment.end - t < segment.fadeOut) gain *= (segment.end - t) / segment.fadeOut;
    mix[0][t - at]! += sound[0][t - from]! * gain;
    mix[1][t - at]! += sound[1][t - from]! * gain;
  }
}

/** Linear gain of an envelope at samples that are asked for in order. */
function envelopeReader(points: SoundSegment['envelope']): (at: number) => number {
  if (!points.length) return () => 1;
  let next = 0;
  let flat: number | null = null;
  return (at) => {
    while (next < points.length && points[next]![0] <= at) {
      next++;
      flat = null;
    }
    if (flat !== null) return flat;
    const before = points[next - 1];
    const after = points[next];
    if (!before || !after || before[1] === after[1])
      return (flat = fromDecibels((before ?? after)![1]));
    return fromDecibels(
      before[1] + ((after[1] - before[1]) * (at - before[0])) / (after[0] - before[0]),
    );
  };
}

/**
 * Bends what is above -1 dBFS smoothly below full scale, so that a sum of loud clips does not wrap
 * or crackle.
 */
export function tameClipping(mix: Stereo): void {
  const knee = 0.89;
  for (const channel of mix)
    for (let i = 0; i < channel.length; i++) {
      const level = Math.abs(channel[i]!);
      if (level > knee)
        channel[i] =
          Math.sign(channel[i]!) * (knee + (1 - knee) * Math.tanh((level - knee) / (1 - knee)));
    }
}
