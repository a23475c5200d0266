'use client';
import { footageUrl } from '@/contract/footage';
import { sourceTime } from '@/core/project/clip-time';
import { thumbCount } from '@/core/project/stand-ins';
import { frontmost, sceneAt, screenOf } from '@/core/scene/scene';
import { ticksToSeconds, type Ticks } from '@/core/time/ticks';
import { useAtPlayhead, useEditor } from '../store';

const WIDTH = 216;

/**
 * The whole screen in small, with the view at the playhead moving on it; where no screen is seen
 * there, as it is at another instant.
 */
export function SideView({ otherwise }: { otherwise: Ticks }) {
  const now = useAtPlayhead((s, playhead) => {
    const sceneOf = (time: Ticks) => sceneAt(s.project, s.sources, time);
    const time = frontmost(sceneOf(playhead), 'screen') ? playhead : otherwise;
    const scene = sceneOf(time);
    const found = frontmost(scene, 'screen');
    if (!found) return null;
    const { view, turn, clip } = screenOf(scene, found);
    const seconds = ticksToSeconds(sourceTime(clip, time));
    const { x, y, width: w, height: h } = view;
    return { id: found.footage.id, seconds, x, y, w, h, turn };
  });
  const footage = useEditor((s) => (now ? s.sources.footage[now.id] : undefined));
  if (!now || !footage) return null;
  const scale = WIDTH / footage.width;
  const height = Math.round(footage.height * scale);
  const length = ticksToSeconds(footage.duration);
  const count = footage.kind === 'image' ? 1 : thumbCount(length || 1);
  const index = Math.min(count - 1, Math.floor((now.seconds / (length || 1)) * count));
  const within = (at: number, size: number, span: number) => ({
    from: Math.max(0, at) * scale,
    size: (Math.min(span, at + size) - Math.max(0, at)) * scale,
  });
  const across = within(now.x, now.w, footage.width);
  const down = within(now.y, now.h, footage.height);
  return (
    <div
      role="img"
      aria-label={`The view at the playhead shows ${Math.round((100 * across.size) / WIDTH)} % of the screen’s width`}
      className="relative overflow-hidden border border-line"
      style={{
        width: WIDTH,
        height,
        backgroundImage: `url(${footageUrl(footage.id, 'thumbs')})`,
        backgroundSize: `${WIDTH * count}px ${height}px`,
        backgroundPosition: `${-index * WIDTH}px 0`,
      }}
      data-testid="side-view"
    >
      <span
        className="absolute border-2 border-playhead"
        style={{
          left: across.from,
          width: across.size,
          top: down.from,
          height: down.size,
          ...(now.turn && { rotate: `${-now.turn}deg` }),
          boxShadow: '0 0 0 9999px rgb(0 0 0 / 0.35)',
        }}
      />
    </div>
  );
}
