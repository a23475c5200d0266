/**
 * A quiet bed of slow chords, two channels, made of detuned sines with a soft pluck on each beat.
 */
export function musicBed(seconds: number, rate: number): Float32Array[] {
  const length = Math.round(seconds * rate);
  const left = new Float32Array(length);
  const right = new Float32Array(length);
  const chords = [
    [220, 277.18, 329.63],
    [196, 246.94, 329.63],
    [174.61, 220, 261.63],
    [196, 246.94, 293.66],
  ];
  const bar = 4.8;
  for (let i = 0; i < length; i++) {
    const t = i / rate;
    const chord = chords[Math.floor(t / bar) % chords.length]!;
    const within = (t % bar) / bar;
    const swell = Math.sin(Math.PI * within) ** 0.6;
    const beat = t % 0.6;
    const note = chord[Math.floor(t / 0.6) % 3]! * 2;
    const pluck =
      Math.exp(-beat * 7) * Math.sin(2 * Math.PI * note * t) * 0.05 * Math.min(1, beat * 200);
    let l = pluck;
    let r = pluck * 0.8;
    for (const f of chord) {
      l += Math.sin(2 * Math.PI * f * 0.999 * t) * 0.035 * swell;
      r += Math.sin(2 * Math.PI * f * 1.001 * t + 0.6) * 0.035 * swell;
    }
    const edge = Math.min(1, t / 2, (seconds - t) / 3);
    left[i] = l * edge;
    right[i] = r * edge;
  }
  return [left, right];
}
