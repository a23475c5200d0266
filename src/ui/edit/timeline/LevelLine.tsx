'use client';
import { envelopeAt } from '@/core/audio/envelope';
import { clipEnd, sourceTime, timelineTime } from '@/core/project/clip-time';
import type { Clip } from '@/core/project/model';
import { useEditor, useEditorStore } from '../store';
import { toPixels, toTime } from './geometry';
import { pointsWithin, toLevel, toY } from './level-geometry';

const REACH_PX = 6;

/** The level along a clip and its fades; a double press adds a point. */
export function LevelLine({
  clip,
  width,
  height,
  selected,
  locked,
}: {
  clip: Clip;
  width: number;
  height: number;
  selected: boolean;
  locked: boolean;
}) {
  const store = useEditorStore();
  const scale = useEditor((s) => s.pixelsPerSecond);
  const from = sourceTime(clip, clip.start);
  const to = sourceTime(clip, clipEnd(clip));
  const line = clip.speed
    ? [
        [0, envelopeAt(clip.envelope, from)] as const,
        ...pointsWithin(clip).map(
          (p) => [toPixels(timelineTime(clip, p.time) - clip.start, scale), p.dB] as const,
        ),
        [width, envelopeAt(clip.envelope, to)] as const,
      ]
        .map(([px, dB]) => `${px.toFixed(1)},${toY(dB, height).toFixed(1)}`)
        .join(' ')
    : '';
  const fadeIn = toPixels(clip.fadeIn, scale);
  const fadeOut = toPixels(clip.fadeOut, scale);
  const add = (event: React.MouseEvent<Element>) => {
    if (locked) return;
    const box = (event.currentTarget as Element).getBoundingClientRect();
    const time = clip.start + toTime(event.clientX - box.left, scale);
    const dB = toLevel(event.clientY - box.top, height);
    store.getState().apply('set-level-point', {
      clipId: clip.id,
      time,
      level: dB,
      reach: toTime(REACH_PX, scale),
    });
    event.stopPropagation();
  };
  const show = selected || clip.envelope.length > 0 || clip.fadeIn > 0 || clip.fadeOut > 0;
  if (!show) return null;
  return (
    <svg className="absolute inset-0" width={width} height={height} onDoubleClick={add} aria-hidden>
      {fadeIn > 0 && (
        <polygon points={`0,0 ${fadeIn},0 0,${height}`} fill="var(--sheet)" opacity={0.75} />
      )}
      {fadeOut > 0 && (
        <polygon
          points={`${width},0 ${width - fadeOut},0 ${width},${height}`}
          fill="var(--sheet)"
          opacity={0.75}
        />
      )}
      <polyline points={line} fill="none" stroke="var(--ink)" strokeWidth={1.25} />
    </svg>
  );
}
