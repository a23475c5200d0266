import { addToMix, SAMPLE_RATE, silence, type SoundSegment, type Stereo } from './mix';

/** Samples for which one peak stands: as long as a picture of 30 a second. */
export const METER_WINDOW = SAMPLE_RATE / 30;

/** The peaks of each lane, linear, one for each `METER_WINDOW` samples, by the id of the lane. */
export type LanePeaks = Readonly<Record<string, Float32Array>>;

/**
 * Measures what each lane brings to a block of the mix: with its gain, level points and fades, all
 * that plays on it at once, before the mix is tamed.
 */
export class LaneMeter {
  private readonly blocks = new Map<string, Stereo>();

  /**
   * @param at the timeline sample with which the block begins
   * @param count its samples
   */
  constructor(
    private readonly at: number,
    private readonly count: number,
  ) {}

  /** Hears a stretch of one recording that begins at the timeline sample `from`. */
  hear(segment: SoundSegment, sound: Stereo, from: number): void {
    let block = this.blocks.get(segment.laneId);
    if (!block) this.blocks.set(segment.laneId, (block = silence(this.count)));
    addToMix(block, this.at, segment, sound, from);
  }

  /** The peaks of the block; lanes that are silent in it are not in there. */
  peaks(): LanePeaks {
    return Object.fromEntries([...this.blocks].map(([id, block]) => [id, peaksOf(block)]));
  }
}

function peaksOf(block: Stereo): Float32Array {
  const peaks = new Float32Array(Math.ceil(block[0].length / METER_WINDOW));
  for (const channel of block)
    for (let i = 0; i < channel.length; i++) {
      const window = Math.floor(i / METER_WINDOW);
      peaks[window] = Math.max(peaks[window]!, Math.abs(channel[i]!));
    }
  return peaks;
}
