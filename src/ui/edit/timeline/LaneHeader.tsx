'use client';
import { Eye, EyeOff, Lock, LockOpen, Volume2, VolumeX } from 'lucide-react';
import { useState } from 'react';
import type { Lane } from '@/core/project/model';
import { isPictureLane } from '@/core/project/query';
import { useRoving } from '../../parts/use-roving';
import { followDrag } from '../picture/drag';
import { rangeOf, useEditor, useEditorStore } from '../store';
import { ROW } from './geometry';

/** A switch of a lane: large enough to be hit. */
const SWITCH = 'grid size-6 shrink-0 place-items-center';

/**
 * Name and switches of a lane: its name is dragged to reorder, its lower edge to make it higher.
 */
export function LaneHeader({ lane }: { lane: Lane }) {
  const store = useEditorStore();
  const apply = useEditor((s) => s.apply);
  const select = useEditor((s) => s.select);
  const selected = useEditor((s) => s.selection?.kind === 'lane' && s.selection.id === lane.id);
  const inRange = useEditor((s) =>
    rangeOf(s) && !lane.locked ? !s.rangeLanes || s.rangeLanes.includes(lane.id) : null,
  );
  const picture = isPictureLane(lane);
  /** The lane whose place it would take, while it is dragged. */
  const [place, setPlace] = useState<string | null>(null);
  const Off = picture ? (lane.off ? EyeOff : Eye) : lane.off ? VolumeX : Volume2;
  const offLabel = picture ? (lane.off ? 'Show' : 'Hide') : lane.off ? 'Unmute' : 'Mute';
  const Locked = lane.locked ? Lock : LockOpen;
  // Applied when let go: rows that changed places under the pointer would be hard to aim at.
  const reorder = (event: React.PointerEvent) => {
    const family = store.getState().project.lanes.filter((l) => isPictureLane(l) === picture);
    const from = family.findIndex((l) => l.id === lane.id);
    let to = from;
    followDrag(
      event,
      (_dx, _dy, pointer) => {
        const row = document
          .elementsFromPoint(pointer.clientX, pointer.clientY)
          .find((e): e is HTMLElement => e instanceof HTMLElement && !!e.dataset.laneHeader);
        const index = family.findIndex((l) => l.id === row?.dataset.laneHeader);
        if (index < 0) return;
        to = index;
        setPlace(to === from ? null : (family[to]?.name ?? null));
      },
      (moved) => {
        setPlace(null);
        if (!moved) select({ kind: 'lane', id: lane.id });
        else if (to !== from) apply('move-lane', { laneId: lane.id, by: to - from });
      },
    );
  };
  const resize = (event: React.PointerEvent) => {
    const drag = store.getState().drag();
    followDrag(event, (_dx, dy) => {
      const height = Math.min(4, Math.max(0.5, lane.height + dy / ROW[lane.kind]));
      drag.to('change-lane', { laneId: lane.id, change: { height } });
    });
  };
  const bar = useRoving<HTMLDivElement>();
  const toggleRange = () => {
    const { project, rangeLanes, set } = store.getState();
    const now = rangeLanes ?? project.lanes.filter((l) => !l.locked).map((l) => l.id);
    set({
      rangeLanes: now.includes(lane.id) ? now.filter((id) => id !== lane.id) : [...now, lane.id],
    });
  };
  return (
    <div
      {...bar}
      role="toolbar"
      aria-label={lane.name}
      data-lane-header={lane.id}
      className="relative flex h-full min-w-0 flex-1 items-center"
    >
      {inRange !== null && (
        <input
          type="checkbox"
          checked={inRange}
          onChange={toggleRange}
          aria-label={`${lane.name} in the range`}
          title="The range acts on this lane"
          className="mr-1.5 size-3 accent-(--action)"
        />
      )}
      <button
        className={`min-w-0 flex-1 truncate text-left ${selected ? 'font-semibold text-action' : ''}`}
        title={`${lane.name}: press for its Details, drag to reorder`}
        onPointerDown={reorder}
        onKeyDown={(e) => e.key === 'Enter' && select({ kind: 'lane', id: lane.id })}
      >
        {place ? `to the place of ${place}` : lane.name}
      </button>
      <button
        aria-label={`Solo ${lane.name}`}
        title={
          picture
            ? `Only ${lane.name} and other solo lanes are seen`
            : `Only ${lane.name} and other solo lanes are heard`
        }
        aria-pressed={lane.solo}
        className={`numbers text-[11px] ${SWITCH} ${lane.solo ? 'bg-caution text-sheet' : 'text-ink-2 opacity-70'}`}
        onClick={() => apply('change-lane', { laneId: lane.id, change: { solo: !lane.solo } })}
      >
        S
      </button>
      <button
        aria-label={`${offLabel} ${lane.name}`}
        title={`${offLabel} ${lane.name}`}
        aria-pressed={lane.off}
        className={`${SWITCH} ${lane.off ? 'text-caution' : 'text-ink-2'}`}
        onClick={() => apply('change-lane', { laneId: lane.id, change: { off: !lane.off } })}
      >
        <Off size={13} aria-hidden />
      </button>
      <button
        aria-label={`${lane.locked ? 'Unlock' : 'Lock'} ${lane.name}`}
        title={`${lane.locked ? 'Unlock' : 'Lock'} ${lane.name}`}
        aria-pressed={lane.locked}
        className={`${SWITCH} ${lane.locked ? 'text-caution' : 'text-ink-2 opacity-50'}`}
        onClick={() => apply('change-lane', { laneId: lane.id, change: { locked: !lane.locked } })}
      >
        <Locked size={13} aria-hidden />
      </button>
      {!picture && lane.clips.length > 0 && (
        <span
          className="absolute inset-x-0 bottom-0.5 h-0.5 origin-left"
          data-lane-meter={lane.id}
          style={{ transform: 'scaleX(0)' }}
          aria-hidden
        />
      )}
      {lane.clips.length > 0 && (
        <span
          className="absolute inset-x-0 -bottom-0.5 h-1.5 cursor-row-resize"
          data-resize={lane.id}
          onPointerDown={resize}
        />
      )}
    </div>
  );
}
