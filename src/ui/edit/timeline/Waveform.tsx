'use client';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import { decibelsToGain } from '@/core/audio/mix';
import type { Clip } from '@/core/project/model';
import { PEAKS_PER_SECOND } from '@/core/project/stand-ins';
import { ticksToSeconds } from '@/core/time/ticks';

const WIDEST = 8192;

async function loadPeaks(footageId: string): Promise<Uint8Array> {
  const response = await fetch(`/api/footage/${footageId}/peaks`);
  if (!response.ok) throw new Error('no waveform');
  return new Uint8Array(await response.arrayBuffer());
}

/** Highest level along a clip, as it sounds with its gain. */
export function Waveform({
  clip,
  width,
  height,
  color,
  scale,
  gain,
}: {
  clip: Clip;
  width: number;
  height: number;
  color: string;
  scale: number;
  gain: number;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { data: peaks } = useQuery({
    queryKey: ['peaks', clip.footageId],
    queryFn: () => loadPeaks(clip.footageId),
    staleTime: Infinity,
    retry: 3,
  });
  const columns = Math.min(WIDEST, Math.max(1, Math.floor(width)));
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context || !peaks) return;
    context.clearRect(0, 0, columns, height);
    context.fillStyle = getComputedStyle(canvas.current!).color;
    const from = ticksToSeconds(clip.source) * PEAKS_PER_SECOND;
    const step = PEAKS_PER_SECOND / scale;
    const factor = decibelsToGain(gain) / 255;
    for (let x = 0; x < columns; x++) {
      const first = Math.floor(from + x * step);
      const last = Math.max(first + 1, Math.floor(from + (x + 1) * step));
      let peak = 0;
      for (let i = first; i < last; i++) peak = Math.max(peak, peaks[i] ?? 0);
      // The square root lets quiet speech be seen beside loud.
      const bar = Math.max(1, Math.sqrt(Math.min(1, peak * factor)) * (height - 2));
      context.fillRect(x, (height - bar) / 2, 1, bar);
    }
  }, [peaks, clip.source, columns, height, scale, gain]);
  return (
    <canvas
      ref={canvas}
      width={columns}
      height={Math.max(1, Math.floor(height))}
      className="pointer-events-none absolute inset-0 h-full opacity-70"
      style={{ color }}
      aria-hidden
    />
  );
}
