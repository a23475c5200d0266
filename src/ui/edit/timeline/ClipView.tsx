'use client';
import { memo, type KeyboardEvent } from 'react';
import { moveClip, trimClip } from '@/core/edit/clips';
import type { Clip, Lane } from '@/core/project/model';
import { isPictureLane } from '@/core/project/query';
import { frameDuration, ticksToSeconds } from '@/core/time/ticks';
import { useEditor, useEditorStore } from '../store';
import { toPixels } from './geometry';
import { Thumbnails } from './Thumbnails';
import { useTimeDrag } from './use-time-drag';
import { Waveform } from './Waveform';

interface Props {
  readonly clip: Clip;
  readonly lane: Lane;
  readonly height: number;
  /** Footage was taken out between the clip before and this one: how much, in seconds. */
  readonly notch: number | null;
}

export const ClipView = memo(function ClipView({ clip, lane, height, notch }: Props) {
  const store = useEditorStore();
  const scale = useEditor((s) => s.pixelsPerSecond);
  const selected = useEditor((s) => s.selection?.kind === 'clip' && s.selection.id === clip.id);
  const footage = useEditor((s) => s.sources.footage[clip.footageId]);
  const drag = useTimeDrag();
  const left = toPixels(clip.start, scale);
  const width = Math.max(3, toPixels(clip.duration, scale));
  const color = `var(--lane-${lane.kind})`;
  const name = footage?.name ?? 'Missing footage';
  const end = clip.start + clip.duration;
  const select = () => store.getState().select({ kind: 'clip', id: clip.id });

  const laneUnder = (pointer: globalThis.PointerEvent) => {
    const row = document.elementsFromPoint(pointer.clientX, pointer.clientY).find((e) => e instanceof HTMLElement && e.dataset.lane);
    const id = (row as HTMLElement | undefined)?.dataset.lane;
    return store.getState().project.lanes.find((l) => l.id === id)?.kind === lane.kind ? id : undefined;
  };
  const trim = (side: 'start' | 'end') => (event: React.PointerEvent) => {
    const { sources, project } = store.getState();
    const edge = side === 'start' ? clip.start : end;
    drag(
      event,
      `Trim ${side}`,
      [edge],
      [clip.id],
      (delta) => (draft) => trimClip(draft, sources, clip.id, side, edge + delta, frameDuration(project.canvas.frameRate)),
      select,
    );
  };
  const onKey = (event: KeyboardEvent) => {
    if (event.key === 'Enter') {
      select();
      event.preventDefault();
    }
    // With Alt the arrows move the clip itself, a frame at a time.
    if (event.altKey && (event.key === 'ArrowLeft' || event.key === 'ArrowRight')) {
      event.preventDefault();
      const { project, edit } = store.getState();
      const by = frameDuration(project.canvas.frameRate) * (event.key === 'ArrowLeft' ? -1 : 1);
      edit('Move', (draft) => moveClip(draft, clip.id, Math.max(0, clip.start + by)), true);
    }
  };
  return (
    <div
      role="button"
      tabIndex={0}
      aria-label={`${name}, ${lane.name}, ${ticksToSeconds(clip.duration).toFixed(1)} s`}
      aria-pressed={selected}
      data-clip={clip.id}
      data-lane-kind={lane.kind}
      onKeyDown={onKey}
      onPointerDown={(event) =>
        drag(
          event,
          'Move',
          [clip.start, end],
          [clip.id],
          (delta, pointer) => (draft) => moveClip(draft, clip.id, clip.start + delta, laneUnder(pointer)),
          select,
        )
      }
      className={`absolute overflow-hidden rounded-(--radius) border-y border-r bg-sheet select-none ${selected ? 'z-10 outline-2 outline-action' : ''} ${lane.off ? 'opacity-45' : ''} ${lane.locked ? 'cursor-not-allowed' : 'cursor-grab'}`}
      style={{
        left,
        width,
        top: 1,
        height: height - 2,
        borderColor: color,
        borderLeft: `3px solid ${color}`,
        backgroundColor: `color-mix(in srgb, ${color} 14%, var(--sheet))`,
      }}
    >
      {isPictureLane(lane) ? (
        <Thumbnails clip={clip} height={height - 4} scale={scale} />
      ) : (
        <Waveform clip={clip} width={width} height={height - 4} color={color} scale={scale} gain={clip.gain + lane.gain} />
      )}
      <span className="pointer-events-none absolute top-0 left-1 max-w-full truncate bg-sheet/75 pr-1 text-[11px] leading-4">
        {width > 28 ? name : ''}
      </span>
      {notch !== null && (
        <span
          className="absolute top-0 left-0 size-0 border-t-8 border-r-8 border-t-playhead border-r-transparent"
          title={`${notch.toFixed(1)} s of footage were taken out here; pull the edge to bring them back`}
        />
      )}
      <span className="absolute inset-y-0 left-0 w-1.5 cursor-ew-resize" data-trim="start" onPointerDown={trim('start')} />
      <span className="absolute inset-y-0 right-0 w-1.5 cursor-ew-resize" data-trim="end" onPointerDown={trim('end')} />
    </div>
  );
});
