'use client';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import { footageFile } from '@/contract/footage';
import { envelopeAt } from '@/core/audio/envelope';
import { fromDecibels } from '@/core/audio/levels';
import type { Clip } from '@/core/project/model';
import { PEAKS_PER_SECOND } from '@/core/project/stand-ins';
import { secondsToTicks, ticksToSeconds } from '@/core/time/ticks';
import { toPixels, type Sight } from './geometry';

async function loadPeaks(footageId: string): Promise<Uint8Array> {
  const response = await fetch(footageFile(footageId, 'peaks'));
  if (!response.ok) throw new Error('no waveform');
  return new Uint8Array(await response.arrayBuffer());
}

/**
 * Highest level along the part of a clip that is in sight, as it sounds with its gain and envelope.
 */
export function Waveform({
  clip,
  height,
  color,
  scale,
  gain,
  sight,
}: {
  clip: Clip;
  height: number;
  color: string;
  scale: number;
  gain: number;
  sight: Sight;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { data: peaks } = useQuery({
    queryKey: ['peaks', clip.footageId],
    queryFn: () => loadPeaks(clip.footageId),
    staleTime: Infinity,
    retry: 3,
  });
  const start = toPixels(clip.start, scale);
  const from = Math.max(0, Math.floor(sight.from - start));
  const to = Math.min(Math.floor(toPixels(clip.duration, scale)), Math.ceil(sight.to - start));
  const columns = Math.max(1, to - from);
  const { source, speed, envelope, muted } = clip;
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context || !peaks) return;
    context.clearRect(0, 0, columns, height);
    if (muted || !speed) return;
    context.fillStyle = getComputedStyle(canvas.current!).color;
    const step = (PEAKS_PER_SECOND / scale) * speed;
    const begin = ticksToSeconds(source) * PEAKS_PER_SECOND + from * step;
    for (let x = 0; x < columns; x++) {
      const first = Math.floor(begin + x * step);
      const last = Math.max(first + 1, Math.floor(begin + (x + 1) * step));
      let peak = 0;
      for (let i = first; i < last; i++) peak = Math.max(peak, peaks[i] ?? 0);
      const level = envelope.length
        ? envelopeAt(envelope, secondsToTicks((begin + x * step) / PEAKS_PER_SECOND))
        : 0;
      // The square root lets quiet speech be seen beside loud.
      const bar = Math.max(
        1,
        Math.sqrt(Math.min(1, (peak * fromDecibels(gain + level)) / 255)) * (height - 2),
      );
      context.fillRect(x, (height - bar) / 2, 1, bar);
    }
  }, [peaks, source, speed, envelope, muted, from, columns, height, scale, gain]);
  return (
    <canvas
      ref={canvas}
      width={columns}
      height={Math.max(1, Math.floor(height))}
      className="pointer-events-none absolute top-0 h-full opacity-70"
      style={{ color, left: from, width: columns }}
      aria-hidden
    />
  );
}
