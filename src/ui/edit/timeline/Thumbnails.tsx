'use client';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import { footageFile } from '@/contract/footage';
import { sourceTime } from '@/core/project/clip-time';
import type { Clip } from '@/core/project/model';
import { thumbCount } from '@/core/project/stand-ins';
import { ticksToSeconds } from '@/core/time/ticks';
import { useEditor } from '../store';
import { toPixels, toTime, type Sight } from './geometry';

async function loadStrip(footageId: string): Promise<HTMLImageElement> {
  const image = new Image();
  image.src = footageFile(footageId, 'thumbs');
  await image.decode();
  return image;
}

/**
 * Small views of the recording along the part of a clip that is in sight, from the strip made at
 * ingest; on one canvas.
 */
export function Thumbnails({
  clip,
  height,
  scale,
  sight,
}: {
  clip: Clip;
  height: number;
  scale: number;
  sight: Sight;
}) {
  const footage = useEditor((s) => s.sources.footage[clip.footageId]);
  const canvas = useRef<HTMLCanvasElement>(null);
  const { data: strip } = useQuery({
    queryKey: ['thumbs', clip.footageId],
    queryFn: () => loadStrip(clip.footageId),
    enabled: !!footage?.hasVideo,
    staleTime: Infinity,
    retry: 3,
  });
  const left = toPixels(clip.start, scale);
  const from = Math.max(0, Math.floor(sight.from - left));
  const to = Math.min(Math.ceil(toPixels(clip.duration, scale)), Math.ceil(sight.to - left));
  const width = Math.max(1, to - from);
  const { start, duration, source, speed } = clip;
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context || !strip || !footage) return;
    const seconds = ticksToSeconds(footage.duration) || 1;
    const count = footage.kind === 'image' ? 1 : thumbCount(seconds);
    const each = Math.max(8, (height * footage.width) / footage.height);
    const cut = strip.naturalWidth / count;
    context.clearRect(0, 0, width, height);
    for (let i = Math.floor(from / each); i * each < to; i++) {
      const at = ticksToSeconds(
        sourceTime({ start, duration, source, speed }, start + toTime(i * each, scale)),
      );
      const index = Math.min(count - 1, Math.max(0, Math.floor((at / seconds) * count)));
      context.drawImage(
        strip,
        index * cut,
        0,
        cut,
        strip.naturalHeight,
        i * each - from,
        0,
        each,
        height,
      );
    }
  }, [strip, footage, start, duration, source, speed, from, to, width, height, scale]);
  if (!footage?.hasVideo) return null;
  return (
    <canvas
      ref={canvas}
      width={width}
      height={Math.max(1, Math.floor(height))}
      className="pointer-events-none absolute top-0 h-full opacity-60"
      style={{ left: from, width }}
      aria-hidden
    />
  );
}
