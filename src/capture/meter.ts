import { levelOf, type Level } from '@/core/audio/levels';
import { soundContext } from './sound-context';

export interface MeterReading extends Level {
  /** Highest peak of the last while, dBFS. */
  readonly held: number;
}

const WINDOW = 4096;
const EVERY_MS = 60;
const HOLD_MS = 1500;

/** Watches the level of a sound track. Answers how to stop. */
export function watchLevel(
  track: MediaStreamTrack,
  onReading: (reading: MeterReading) => void,
): () => void {
  const context = soundContext();
  const analyser = new AnalyserNode(context, { fftSize: WINDOW });
  const source = new MediaStreamAudioSourceNode(context, { mediaStream: new MediaStream([track]) });
  source.connect(analyser);
  const samples = new Float32Array(WINDOW);
  let held = -120;
  let heldAt = 0;
  const timer = setInterval(() => {
    analyser.getFloatTimeDomainData(samples);
    const level = levelOf(samples);
    const now = performance.now();
    if (level.peak >= held || now - heldAt > HOLD_MS) {
      held = level.peak;
      heldAt = now;
    }
    onReading({ ...level, held });
  }, EVERY_MS);
  return () => {
    clearInterval(timer);
    source.disconnect();
  };
}

/** Listens to a track for some seconds; one channel, with its sample rate. */
export async function listen(
  track: MediaStreamTrack,
  seconds: number,
  onShare: (share: number) => void,
): Promise<{ samples: Float32Array; rate: number }> {
  const context = soundContext();
  const analyser = new AnalyserNode(context, { fftSize: 32_768 });
  const source = new MediaStreamAudioSourceNode(context, { mediaStream: new MediaStream([track]) });
  source.connect(analyser);
  const rate = context.sampleRate;
  const out = new Float32Array(Math.round(seconds * rate));
  const piece = new Float32Array(analyser.fftSize);
  let filled = 0;
  let last = context.currentTime;
  const until = performance.now() + seconds * 1000 + 3000;
  while (filled < out.length && performance.now() < until) {
    await new Promise((resolve) => setTimeout(resolve, 200));
    const now = context.currentTime;
    const fresh = Math.min(piece.length, Math.round((now - last) * rate), out.length - filled);
    last = now;
    if (fresh <= 0) continue;
    analyser.getFloatTimeDomainData(piece);
    out.set(piece.subarray(piece.length - fresh), filled);
    filled += fresh;
    onShare(filled / out.length);
  }
  source.disconnect();
  return { samples: out.subarray(0, filled), rate };
}
