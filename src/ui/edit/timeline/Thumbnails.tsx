'use client';
import { sourceTime } from '@/core/project/clip-time';
import type { Clip } from '@/core/project/model';
import { thumbCount } from '@/core/project/stand-ins';
import { ticksToSeconds } from '@/core/time/ticks';
import { useEditor } from '../store';
import { toPixels, toTime, type Sight } from './geometry';

/** Small views of the recording along the part of a clip that is in sight, from the strip made at ingest. */
export function Thumbnails({ clip, height, scale, sight }: { clip: Clip; height: number; scale: number; sight: Sight }) {
  const footage = useEditor((s) => s.sources.footage[clip.footageId]);
  if (!footage?.hasVideo) return null;
  const seconds = ticksToSeconds(footage.duration) || 1;
  const count = footage.kind === 'image' ? 1 : thumbCount(seconds);
  const each = Math.max(8, (height * footage.width) / footage.height);
  const left = toPixels(clip.start, scale);
  const width = toPixels(clip.duration, scale);
  const first = Math.max(0, Math.floor((sight.from - left) / each));
  const last = Math.min(Math.ceil(width / each), Math.ceil((sight.to - left) / each));
  return (
    <span className="pointer-events-none absolute inset-0 overflow-hidden">
      {Array.from({ length: Math.max(0, last - first) }, (_, n) => {
        const i = first + n;
        const at = ticksToSeconds(sourceTime(clip, clip.start + toTime(i * each, scale)));
        const index = Math.min(count - 1, Math.floor((at / seconds) * count));
        return (
          <span
            key={i}
            className="absolute top-0 opacity-60"
            style={{
              left: i * each,
              width: each,
              height,
              backgroundImage: `url(/api/footage/${footage.id}/thumbs)`,
              backgroundSize: `${each * count}px ${height}px`,
              backgroundPosition: `${-index * each}px 0`,
            }}
          />
        );
      })}
    </span>
  );
}
