import { levelOf } from './levels';

export type MicrophoneVerdict = 'good' | 'silent' | 'too quiet' | 'clipping' | 'hum' | 'noisy';

export interface MicrophoneCheck {
  readonly verdict: MicrophoneVerdict;
  /** dBFS. */
  readonly peak: number;
  /** Level of the speech: of the louder stretches. dBFS. */
  readonly speech: number;
  /** Level between the words. dBFS. */
  readonly floor: number;
  /** Mains hum that stands out, Hz; null when there is none. */
  readonly hum: 50 | 60 | null;
  /** Samples at full scale that stand in runs. */
  readonly clipped: number;
  /** Gain in dB that would bring the speech to where it should be. */
  readonly gain: number;
}

const WINDOW_SECONDS = 0.05;
const FULL = 0.985;
const RUN = 3;
/** Where speech should be: RMS of the louder stretches. */
const SPEECH_GOAL = -22;
const MOST_GAIN = 24;
/** Peaks are kept this far below full scale by the gain that is proposed. */
const HEADROOM = -3;

/**
 * Power of one frequency in samples, relative to a full-scale sine (Goertzel, 1958), as amplitude 0
 * to 1.
 */
export function toneAmplitude(samples: Float32Array, rate: number, frequency: number): number {
  const k = 2 * Math.cos((2 * Math.PI * frequency) / rate);
  let a = 0;
  let b = 0;
  for (let i = 0; i < samples.length; i++) {
    // A Hann window, so that speech beside the frequency does not leak into it.
    const weight = 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / samples.length);
    const next = samples[i]! * weight + k * a - b;
    b = a;
    a = next;
  }
  return (Math.sqrt(Math.max(0, a * a + b * b - k * a * b)) * 4) / samples.length;
}

const HUM_WINDOW_SECONDS = 0.25;
const HARMONICS = [1, 2, 3];

/**
 * Mains hum: in the quietest stretches a tone at 50 or 60 Hz, with its multiples, makes up most of
 * what is heard.
 */
function findHum(samples: Float32Array, rate: number): 50 | 60 | null {
  const window = Math.round(rate * HUM_WINDOW_SECONDS);
  const stretches: { at: number; power: number }[] = [];
  for (let at = 0; at + window <= samples.length; at += window >> 1) {
    let power = 0;
    for (let i = at; i < at + window; i++) power += samples[i]! * samples[i]!;
    stretches.push({ at, power: power / window });
  }
  const quiet = stretches
    .sort((a, b) => a.power - b.power)
    .slice(0, Math.max(1, Math.ceil(stretches.length / 5)))
    .filter(({ power }) => power > 1e-9);
  const share = (mains: number) =>
    quiet.reduce((sum, { at, power }) => {
      const piece = samples.subarray(at, at + window);
      return (
        sum +
        HARMONICS.reduce((all, h) => all + toneAmplitude(piece, rate, mains * h) ** 2 / 2, 0) /
          power
      );
    }, 0) / Math.max(1, quiet.length);
  const [at50, at60] = [share(50), share(60)];
  if (Math.max(at50, at60) < 0.5) return null;
  return at50 >= at60 ? 50 : 60;
}

/**
 * Judges some seconds of speech from a microphone, and proposes a gain.
 *
 * @param samples one channel, -1 to 1; with pauses between words, as speech has
 * @param rate samples a second
 */
export function checkMicrophone(samples: Float32Array, rate: number): MicrophoneCheck {
  const window = Math.max(1, Math.round(rate * WINDOW_SECONDS));
  const levels: number[] = [];
  for (let i = 0; i + window <= samples.length; i += window)
    levels.push(levelOf(samples.subarray(i, i + window)).rms);
  levels.sort((a, b) => a - b);
  const part = (share: number) =>
    levels[Math.min(levels.length - 1, Math.floor(levels.length * share))] ?? -120;
  const floor = part(0.1);
  const speech = part(0.85);
  const { peak } = levelOf(samples);
  let clipped = 0;
  let run = 0;
  for (let i = 0; i <= samples.length; i++) {
    if (i < samples.length && Math.abs(samples[i]!) >= FULL) run++;
    else {
      if (run >= RUN) clipped += run;
      run = 0;
    }
  }
  const hum = findHum(samples, rate);
  const wanted = Math.min(SPEECH_GOAL - speech, clipped ? 0 : HEADROOM - peak);
  const gain = Math.round(Math.max(-MOST_GAIN, Math.min(MOST_GAIN, wanted)) * 2) / 2;
  const verdict: MicrophoneVerdict =
    peak < -60
      ? 'silent'
      : clipped > rate * 0.0002
        ? 'clipping'
        : hum && floor > -60
          ? 'hum'
          : speech - floor < 18 && floor > -60
            ? 'noisy'
            : speech < SPEECH_GOAL - 14
              ? 'too quiet'
              : 'good';
  return { verdict, peak, speech, floor, hum, clipped, gain: verdict === 'silent' ? 0 : gain };
}

/** What to do about a verdict, in a sentence. */
export function microphoneAdvice({ verdict, gain, hum, floor }: MicrophoneCheck): string {
  const decibels = `${gain > 0 ? '+' : ''}${gain} dB`;
  switch (verdict) {
    case 'good':
      return Math.abs(gain) < 3
        ? 'The level is right. Nothing needs to be changed.'
        : `Fine. A gain of ${decibels} would bring it to the usual level.`;
    case 'silent':
      return 'Nothing is heard. Check that this is the right microphone, that it is not muted, and speak while it listens.';
    case 'too quiet':
      return `Too quiet. Go closer to the microphone, or use a gain of ${decibels}.`;
    case 'clipping':
      return 'Too loud: the loudest parts are cut off, which can’t be mended later. Turn the microphone down or move away from it.';
    case 'hum':
      return `A hum at ${hum} Hz is heard between the words. Move the microphone’s cable away from power supplies, or unplug the charger.`;
    case 'noisy':
      return `There is much noise between the words (${floor.toFixed(0)} dBFS). Close the window, switch fans off, or go closer and turn the gain down.`;
  }
}
