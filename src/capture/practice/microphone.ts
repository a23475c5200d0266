import { fromDecibels } from '@/core/audio/levels';
import { soundContext } from '../sound-context';

/** How the practice microphone sounds: as it should, or as one that has to be noticed. */
export const MICROPHONE_MOODS = ['good', 'too quiet', 'too loud', 'noisy', 'hum'] as const;
export type MicrophoneMood = (typeof MICROPHONE_MOODS)[number];

const RATE = 48_000;
/** dB on the made voice, of the noise (full-scale RMS) and of the hum. */
const MOODS: Record<
  MicrophoneMood,
  { readonly voice: number; readonly noise: number; readonly hum: number }
> = {
  good: { voice: -6, noise: -72, hum: -120 },
  'too quiet': { voice: -30, noise: -90, hum: -120 },
  'too loud': { voice: 22, noise: -60, hum: -120 },
  noisy: { voice: -6, noise: -36, hum: -120 },
  hum: { voice: -6, noise: -80, hum: -40 },
};
const CLICK_MS = 4;

/** A microphone into which the made voice speaks for ever. */
export class PracticeMicrophone {
  readonly track: MediaStreamTrack;
  private readonly context = soundContext();
  private readonly running: AudioScheduledSourceNode[] = [];
  private stopped = false;
  private readonly out: MediaStreamAudioDestinationNode;
  private readonly voice: GainNode;
  private readonly noise: GainNode;
  private readonly hum: GainNode;

  constructor(mood: MicrophoneMood) {
    const { context } = this;
    this.out = context.createMediaStreamDestination();
    this.out.channelCount = 1;
    // As a real one would, it cuts off what is louder than full scale.
    const limit = new WaveShaperNode(context, { curve: Float32Array.from([-1, 0, 1]) });
    limit.connect(this.out);
    const gain = () => {
      const node = context.createGain();
      node.connect(limit);
      return node;
    };
    this.voice = gain();
    this.noise = gain();
    this.hum = gain();
    const noise = context.createBuffer(1, RATE * 2, RATE);
    const samples = noise.getChannelData(0);
    for (let i = 0; i < samples.length; i++) samples[i] = (Math.random() * 2 - 1) * Math.sqrt(3);
    const hiss = new AudioBufferSourceNode(context, { buffer: noise, loop: true });
    hiss.connect(this.noise);
    this.run(hiss);
    const mains = new OscillatorNode(context, { frequency: 50 });
    mains.connect(this.hum);
    this.run(mains);
    this.setMood(mood);
    this.track = this.out.stream.getAudioTracks()[0]!;
    void this.speak();
  }

  private run(node: AudioScheduledSourceNode): void {
    node.start();
    this.running.push(node);
  }

  private async speak(): Promise<void> {
    const response = await fetch('/practice/voice.webm').catch(() => null);
    if (!response?.ok) return;
    const buffer = await this.context.decodeAudioData(await response.arrayBuffer());
    if (this.stopped) return;
    const said = new AudioBufferSourceNode(this.context, { buffer, loop: true });
    said.connect(this.voice);
    this.run(said);
  }

  setMood(mood: MicrophoneMood): void {
    const { voice, noise, hum } = MOODS[mood];
    this.voice.gain.value = fromDecibels(voice);
    this.noise.gain.value = fromDecibels(noise);
    this.hum.gain.value = hum <= -120 ? 0 : fromDecibels(hum);
  }

  /**
   * A click some milliseconds from now; with the flash of the other practice devices it shows
   * whether picture and sound fit.
   */
  click(inMs: number): void {
    const length = Math.round((CLICK_MS / 1000) * RATE);
    const buffer = this.context.createBuffer(1, length, RATE);
    buffer.getChannelData(0).fill(0.95);
    const node = new AudioBufferSourceNode(this.context, { buffer });
    node.connect(this.out);
    node.start(this.context.currentTime + inMs / 1000);
  }

  stop(): void {
    this.stopped = true;
    this.track.stop();
    for (const node of this.running) node.stop();
  }
}
