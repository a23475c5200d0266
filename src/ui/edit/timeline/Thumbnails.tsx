'use client';
import type { Clip } from '@/core/project/model';
import { thumbCount } from '@/core/project/stand-ins';
import { ticksToSeconds } from '@/core/time/ticks';
import { useEditor } from '../store';

const MOST = 200;

/** Small views of the recording along a clip, from the strip made at ingest. */
export function Thumbnails({ clip, height, scale }: { clip: Clip; height: number; scale: number }) {
  const footage = useEditor((s) => s.sources.footage[clip.footageId]);
  if (!footage?.hasVideo) return null;
  const seconds = ticksToSeconds(footage.duration) || 1;
  const count = footage.kind === 'image' ? 1 : thumbCount(seconds);
  const each = (height * footage.width) / footage.height;
  const width = ticksToSeconds(clip.duration) * scale;
  const shown = Math.min(MOST, Math.ceil(width / each));
  return (
    <span className="pointer-events-none absolute inset-0 overflow-hidden">
      {Array.from({ length: shown }, (_, i) => {
        const at = ticksToSeconds(clip.source) + (i * each) / scale;
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
