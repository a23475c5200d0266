'use client';
import { useEffect, useState } from 'react';
import { watchLevel, type MeterReading } from '@/capture/meter';
import { zoneOf, type LevelZone } from '@/core/audio/levels';

const LOW = -60;
const x = (decibels: number) => Math.max(0, Math.min(100, ((decibels - LOW) / -LOW) * 100));
const number = (decibels: number) =>
  decibels <= -119 ? '−∞' : decibels.toFixed(0).replace('-', '−');
/** Zones by word and by pattern, so that colour is not all that tells them apart. */
const WORDS: Record<LevelZone, string> = {
  silent: 'silent',
  quiet: 'too quiet',
  good: 'good',
  loud: 'loud',
  clipping: 'clipping',
};
const SCALE = [-48, -36, -24, -12, -6, 0];

/** Peak, RMS and held peak of a sound source. */
export function LevelMeter({ track, gain = 0 }: { track: MediaStreamTrack | null; gain?: number }) {
  const [reading, setReading] = useState<MeterReading | null>(null);
  useEffect(() => {
    if (!track) return;
    const stop = watchLevel(track, setReading);
    return () => {
      stop();
      setReading(null);
    };
  }, [track]);
  if (!track) return <p className="text-xs text-ink-2">Switch a microphone on to see its level.</p>;
  const peak = (reading?.peak ?? -120) + gain;
  const rms = (reading?.rms ?? -120) + gain;
  const held = (reading?.held ?? -120) + gain;
  const zone = zoneOf(held);
  const tone =
    zone === 'good'
      ? 'text-good'
      : zone === 'clipping'
        ? 'text-fault'
        : zone === 'silent'
          ? 'text-ink-2'
          : 'text-caution';
  return (
    <div
      role="meter"
      aria-label="Level"
      aria-valuemin={LOW}
      aria-valuemax={0}
      aria-valuenow={Math.round(Math.max(LOW, peak))}
      aria-valuetext={`${number(held)} dBFS, ${WORDS[zone]}`}
    >
      <svg viewBox="0 0 100 14" preserveAspectRatio="none" className="block h-5 w-full" aria-hidden>
        <defs>
          <pattern id="too-quiet" width="2.4" height="4" patternUnits="userSpaceOnUse">
            <circle cx="1" cy="2" r="0.45" fill="var(--ink-2)" />
          </pattern>
          <pattern
            id="too-loud"
            width="2"
            height="4"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(30)"
          >
            <rect width="0.9" height="4" fill="var(--ink-2)" />
          </pattern>
        </defs>
        <rect width="100" height="14" fill="var(--sheet)" />
        <rect width={x(-20)} height="14" fill="url(#too-quiet)" opacity="0.5" />
        <rect x={x(-6)} width={100 - x(-6)} height="14" fill="url(#too-loud)" opacity="0.5" />
        <rect y="3" width={x(peak)} height="8" fill="var(--lane-voice)" opacity="0.45" />
        <rect y="3" width={x(rms)} height="8" fill="var(--lane-voice)" />
        <rect
          x={Math.max(0, x(held) - 0.4)}
          width="0.8"
          height="14"
          fill={zone === 'clipping' ? 'var(--fault)' : 'var(--ink)'}
        />
        {[-20, -6].map((at) => (
          <rect key={at} x={x(at)} width="0.3" height="14" fill="var(--ink-2)" />
        ))}
      </svg>
      <div className="numbers relative h-3 text-[9px] text-ink-2" aria-hidden>
        {SCALE.map((at) => (
          <span
            key={at}
            className={`absolute ${at ? '-translate-x-1/2' : '-translate-x-full'}`}
            style={{ left: `${x(at)}%` }}
          >
            {number(at)}
          </span>
        ))}
      </div>
      <p className="numbers text-[11px] whitespace-nowrap">
        peak {number(peak)} · RMS {number(rms)} · held {number(held)} dBFS
      </p>
      <p className={`text-xs font-semibold ${tone}`} data-testid="level-zone">
        {WORDS[zone]}
      </p>
    </div>
  );
}
