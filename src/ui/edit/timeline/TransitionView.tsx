'use client';
import type { Clip, Transition } from '@/core/project/model';
import type { Range } from '@/core/time/ranges';
import { frameDuration, ticksToSeconds } from '@/core/time/ticks';
import { TRANSITION_NAMES } from '../names';
import { useEditor, useEditorStore } from '../store';
import { toPixels } from './geometry';
import { selectItems } from './selecting';
import { useTimeDrag } from './use-time-drag';

/** A transition over the cut or end that it belongs to; its sides are pulled for its length. */
export function TransitionView({
  clip,
  end,
  transition,
  range,
  height,
}: {
  clip: Clip;
  end: 'start' | 'end';
  transition: Transition;
  range: Range;
  height: number;
}) {
  const store = useEditorStore();
  const scale = useEditor((s) => s.pixelsPerSecond);
  const drag = useTimeDrag();
  const least = () => frameDuration(store.getState().project.canvas.frameRate);
  // At a cut both sides grow together.
  const sides = range.start < clip.start && end === 'start' ? 2 : 1;
  const pull = (sign: 1 | -1) => (event: React.PointerEvent) => {
    drag(event, [sign > 0 ? range.end : range.start], [clip.id], (delta) => {
      const duration = Math.max(2 * least(), range.end - range.start + sign * sides * delta);
      return [
        'set-transition',
        { clipId: clip.id, end, transition: { ...transition, duration: Math.round(duration) } },
      ];
    });
  };
  const length = ticksToSeconds(range.end - range.start).toFixed(2);
  return (
    <div
      data-transition={transition.kind}
      role="button"
      tabIndex={0}
      aria-label={`${TRANSITION_NAMES[transition.kind]}, ${length} s`}
      title={`${TRANSITION_NAMES[transition.kind]}, ${length} s`}
      className="absolute z-20 cursor-pointer border border-ink bg-sheet/50"
      style={{
        left: toPixels(range.start, scale),
        width: Math.max(6, toPixels(range.end - range.start, scale)),
        top: height / 2,
        height: height / 2 - 2,
        backgroundImage:
          'linear-gradient(to top right, transparent calc(50% - 0.7px), var(--ink) calc(50% - 0.7px), var(--ink) calc(50% + 0.7px), transparent calc(50% + 0.7px))',
      }}
      onPointerDown={(event) => {
        event.stopPropagation();
        selectItems(store, [clip.id]);
      }}
      onKeyDown={(event) => event.key === 'Enter' && selectItems(store, [clip.id])}
    >
      <span className="absolute inset-y-0 left-0 w-1.5 cursor-ew-resize" onPointerDown={pull(-1)} />
      <span
        className="absolute inset-y-0 right-0 w-1.5 cursor-ew-resize"
        data-pull="end"
        onPointerDown={pull(1)}
      />
    </div>
  );
}
