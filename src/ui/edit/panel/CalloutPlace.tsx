'use client';
import { kindOf } from '@/core/callout/kinds';
import { calloutScene } from '@/core/frame/callout-layers';
import type { Callout } from '@/core/project/model';
import { sceneAt } from '@/core/scene/scene';
import { contains } from '@/core/time/ranges';
import { NumberField } from '../../parts/fields';
import { moveCallout } from '../picture/move-callout';
import { placeOfCallout } from '../picture/place-in-frame';
import { useEditor, useEditorStore, useTransport } from '../store';

/** Beyond this nothing is to be seen of it. */
const FARTHEST = 100_000;

/** Where a callout stands in the Picture at the playhead, and how large it is, by number. */
export function CalloutPlace({ callout }: { callout: Callout }) {
  const store = useEditorStore();
  const { id } = callout;
  const apply = useEditor((s) => s.apply);
  const project = useEditor((s) => s.project);
  const sources = useEditor((s) => s.sources);
  const playhead = useTransport((t) => t.playhead);
  const on = contains(callout, playhead)
    ? calloutScene(sceneAt(project, sources, playhead), callout)
    : null;
  if (!on) return null;
  const place = placeOfCallout(callout, on);
  const kind = kindOf(callout);
  const handles = kind.handles(callout);
  const sized = handles.some((handle) => handle.id === 'corner')
    ? handles.find(({ size }) => size)?.size
    : undefined;
  const move = (by: { dx?: number; dy?: number }) => {
    const way = { dx: 0, dy: 0, ...by };
    apply('change-callout', { id, change: moveCallout(store.getState(), callout, null, on, way) });
  };
  /** Sizes are its own, however it is turned. */
  const size = ({ dx = 0, dy = 0 }: { dx?: number; dy?: number }) => {
    const by = { dx: dx / on.scale, dy: dy / on.scale };
    const change = kind.withHandle(callout, 'corner', { by, frame: { dx, dy } });
    apply('change-callout', { id, change: change as Partial<Callout> });
  };
  const field = (label: string, value: number, least: number, onBy: (by: number) => void) => (
    <NumberField
      {...{ label, unit: 'px', step: 1, min: least, max: FARTHEST }}
      value={Math.round(value)}
      onDone={(typed) => onBy(typed - value)}
    />
  );
  return (
    <div className="grid grid-cols-2 gap-x-4 gap-y-2">
      {field('Left', place.x, -FARTHEST, (dx) => move({ dx }))}
      {field('Top', place.y, -FARTHEST, (dy) => move({ dy }))}
      {sized && field('Width', sized.width * on.scale, 1, (dx) => size({ dx }))}
      {sized && field('Height', sized.height * on.scale, 1, (dy) => size({ dy }))}
    </div>
  );
}
