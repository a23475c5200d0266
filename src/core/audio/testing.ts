import type { ReadableSound } from './comparison';
import { ONSET_RATE, OnsetMeter } from './onsets';

/*
 * Made sounds for tests and measurements: somebody talks, and microphones hear it from elsewhere.
 */

/** Random numbers from 0 to 1 that are the same in each run. */
export function random(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}

/** Bursts of tone and noise at odd times, as speech has them, at `ONSET_RATE`. */
export function talk(seconds: number, seed: number): Float32Array {
  const next = random(seed);
  const out = new Float32Array(seconds * ONSET_RATE);
  for (let at = 0; at < out.length; at += Math.floor((0.08 + next() * 0.5) * ONSET_RATE)) {
    const [length, pitch, loud, noisy] = [next() * 0.25, 100 + next() * 1500, next(), next()];
    for (let i = 0; i < length * ONSET_RATE && at + i < out.length; i++) {
      const tone = Math.sin((2 * Math.PI * pitch * i) / ONSET_RATE);
      const fall = Math.exp(-i / (0.08 * ONSET_RATE));
      out[at + i]! += loud * fall * (tone * (1 - noisy) + (next() - 0.5) * noisy);
    }
  }
  return out;
}

/** As another microphone hears it: duller, softer, with echo and noise of its own. */
export function elsewhere(sound: Float32Array, seed: number): Float32Array {
  const next = random(seed);
  let dull = 0;
  return sound.map((sample, i) => {
    const echoed = sample + 0.4 * (sound[i - 300] ?? 0) + 0.3 * (sound[i - 900] ?? 0);
    dull += 0.5 * (echoed - dull);
    return 0.2 * dull + (next() - 0.5) * 0.004;
  });
}

/** With white noise as loud as itself less so many decibels. */
export function noisy(sound: Float32Array, decibels: number, seed: number): Float32Array {
  const next = random(seed);
  const power = sound.reduce((sum, sample) => sum + sample * sample, 0) / sound.length;
  // Even noise from -1 to 1 has a third of its peak's power.
  const peak = Math.sqrt(power * 3 * 10 ** (-decibels / 10));
  return sound.map((sample) => sample + (next() * 2 - 1) * peak);
}

/** Half as many places of a sound on each side are looked at between two samples. */
const TAPS = 16;

/**
 * As a clock tells it that runs faster by so many millionths: what took a second by the other clock
 * takes less than one by this. Between samples by a windowed sinc.
 */
export function drifted(sound: Float32Array, ppm: number): Float32Array {
  const step = 1 + ppm * 1e-6;
  return Float32Array.from({ length: Math.floor(sound.length / step) }, (_, i) => {
    const place = i * step;
    const whole = Math.floor(place);
    let sum = 0;
    for (let k = whole - TAPS + 1; k <= whole + TAPS; k++) {
      const x = place - k;
      const sinc = x === 0 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x);
      sum += (sound[k] ?? 0) * sinc * (0.5 + 0.5 * Math.cos((Math.PI * x) / TAPS));
    }
    return sum;
  });
}

/** Onsets of a sound that comes in pieces of odd lengths. */
export function onsetsOf(sound: Float32Array): Uint8Array {
  const meter = new OnsetMeter();
  for (let at = 0; at < sound.length; at += 1237) meter.take(sound.subarray(at, at + 1237));
  return meter.result();
}

/** A sound that lies in memory. */
export const readable = (sound: Float32Array): ReadableSound => ({
  length: sound.length,
  read: (from, count) => Float32Array.from({ length: count }, (_, i) => sound[from + i] ?? 0),
});
