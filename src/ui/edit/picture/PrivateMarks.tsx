'use client';
import { useMemo } from 'react';
import { privateName } from '@/core/private/names';
import { sourceMs } from '@/core/project/clip-time';
import { boxInOutput, sceneAt, screenShowing } from '@/core/scene/scene';
import { usePrivate } from '../panel/use-private';
import { useEditor, useTransport } from '../store';

/** Frames on the Picture around private data that lies bare at the playhead. */
export function PrivateMarks({ footageId, scale }: { footageId: string; scale: number }) {
  const { data, places } = usePrivate(footageId);
  const project = useEditor((s) => s.project);
  const sources = useEditor((s) => s.sources);
  const playhead = useTransport((t) => t.playhead);
  const marks = useMemo(() => {
    const screen = screenShowing(sceneAt(project, sources, playhead), footageId);
    if (!screen || !data) return [];
    const ms = sourceMs(screen.clip, playhead);
    return places
      .filter(
        ({ stretch, clipId }) => clipId === screen.clip.id && stretch.from <= ms && ms < stretch.to,
      )
      .map(({ found, stretch: { rect } }) => {
        const box = boxInOutput(screen, rect);
        return {
          key: `${found} ${rect.x} ${rect.y}`,
          name: privateName(data.found[found]!.kind),
          left: box.x * scale,
          top: box.y * scale,
          width: box.width * scale,
          height: box.height * scale,
        };
      });
  }, [project, sources, playhead, footageId, data, places, scale]);
  return marks.map(({ key, name, ...box }) => (
    <span
      key={key}
      title={name}
      className="pointer-events-none absolute outline-2 outline-offset-2 outline-fault outline-dashed"
      style={box}
      data-testid="private-mark"
    />
  ));
}
