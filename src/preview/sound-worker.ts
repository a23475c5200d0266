import { expose, transfer } from 'comlink';
import { ALL_FORMATS, AudioSampleSink, Input, UrlSource, type AudioSample } from 'mediabunny';
import { footageUrl } from '@/contract/footage';
import type { Sources } from '@/core/project/sources';
import { SoundEngine, type OpenSound } from '@/core/audio/engine';
import { LaneMeter, type LanePeaks } from '@/core/audio/lane-meter';
import { SAMPLE_RATE, silence, type Stereo } from '@/core/audio/mix';
import { planSound } from '@/core/audio/plan';
import { ProjectReceiver, type ProjectNews } from './project-link';

const MOST_READERS = 24;

/** A stretch of the mix, left and right, and how loud each lane is in it. */
export interface MixedPiece {
  readonly sound: Stereo;
  readonly peaks: LanePeaks;
}

/** Sound of one recording from a sample on, read in order. */
class FootageSound {
  private readonly sink: Promise<AudioSampleSink>;
  private iterator: AsyncGenerator<AudioSample, void, unknown> | null = null;
  private piece: { at: number; sound: Stereo } | null = null;
  private next = -1;

  constructor(footageId: string) {
    const input = new Input({
      source: new UrlSource(footageUrl(footageId, 'sound')),
      formats: ALL_FORMATS,
    });
    this.sink = input.getPrimaryAudioTrack().then((track) => {
      if (!track) throw new Error('no sound');
      return new AudioSampleSink(track);
    });
    this.sink.catch(() => {});
  }

  close(): void {
    void this.iterator?.return();
  }

  /** `count` samples from `from` on; silence where the recording has none. */
  async read(from: number, count: number): Promise<Stereo> {
    const out = silence(count);
    if (from !== this.next) {
      void this.iterator?.return();
      this.iterator = (await this.sink).samples(Math.max(0, from / SAMPLE_RATE - 0.05));
      this.piece = null;
    }
    this.next = from + count;
    for (;;) {
      if (this.piece) copyOverlap(this.piece, out, from);
      if (this.piece && this.piece.at + this.piece.sound[0].length >= from + count) return out;
      const result = await this.iterator!.next();
      if (result.done) return out;
      this.piece = unpack(result.value);
      result.value.close();
    }
  }
}

function unpack(sample: AudioSample): { at: number; sound: Stereo } {
  const count = sample.numberOfFrames;
  const channel = (planeIndex: number) => {
    const data = new Float32Array(count);
    sample.copyTo(data, { planeIndex, format: 'f32-planar' });
    return data;
  };
  const left = channel(0);
  return {
    at: Math.round(sample.timestamp * SAMPLE_RATE),
    sound: [left, sample.numberOfChannels > 1 ? channel(1) : left],
  };
}

function copyOverlap(piece: { at: number; sound: Stereo }, out: Stereo, from: number): void {
  const first = Math.max(from, piece.at);
  const last = Math.min(from + out[0].length, piece.at + piece.sound[0].length);
  if (last <= first) return;
  for (const side of [0, 1] as const)
    out[side].set(piece.sound[side].subarray(first - piece.at, last - piece.at), first - from);
}

/**
 * Mixes stretches of the timeline, away from the page's main thread, by the same rules as the
 * export.
 */
export class SoundWorker {
  private readonly known = new ProjectReceiver();
  private readonly engine = new SoundEngine(openFootage, MOST_READERS);

  /** Takes in what is new of the project. */
  receive(news: ProjectNews): void {
    const before = this.known.sources;
    this.known.receive(news);
    const { project, sources } = this.known;
    // Another file may come in the place of what is not there for a while, or is prepared anew.
    const gone = Object.keys(before.footage).some((id) => !Object.hasOwn(sources.footage, id));
    if (gone || preparedNow(before) !== preparedNow(sources)) this.engine.close();
    if (project) this.engine.setPlan(planSound(project, heard(sources)));
  }

  /** `length` samples of the mix from timeline sample `at` on, and the peaks of its lanes. */
  async mix(at: number, length: number): Promise<MixedPiece> {
    const meter = new LaneMeter(at, length);
    const sound = await this.engine.mix(at, length, meter);
    return transfer({ sound, peaks: meter.peaks() }, [sound[0].buffer, sound[1].buffer]);
  }
}

/** Which recordings are being prepared. */
const preparedNow = ({ preparing = {} }: Sources): string => Object.keys(preparing).join(' ');

/** Without recordings whose sound is still being prepared: they are silent until then. */
const heard = ({ footage, preparing = {}, ...rest }: Sources): Sources => ({
  ...rest,
  footage: Object.fromEntries(
    Object.entries(footage).filter(([id]) => preparing[id]?.sound ?? true),
  ),
});

/** A recording as the server serves it; what can't be read of it is silent. */
function openFootage(footageId: string): OpenSound {
  const sound = new FootageSound(footageId);
  return {
    read: (from, count) => sound.read(from, count).catch(() => silence(count)),
    close: () => sound.close(),
  };
}

expose(new SoundWorker());
