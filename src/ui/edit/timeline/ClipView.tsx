'use client';
import { Snowflake, VolumeX } from 'lucide-react';
import { memo, type KeyboardEvent } from 'react';
import { clipEnd, ownSpeed } from '@/core/project/clip-time';
import type { Clip, Lane } from '@/core/project/model';
import { isPictureLane } from '@/core/project/query';
import { frameDuration, ticksToSeconds, type Ticks } from '@/core/time/ticks';
import { useEditor, useEditorStore } from '../store';
import { LevelLine } from './LevelLine';
import { LevelPoints } from './LevelPoints';
import { Ends } from './Ends';
import { PLAIN_PX, toPixels } from './geometry';
import { pressItem, selectedItems } from './selecting';
import { useTimeDrag } from './use-time-drag';

interface Props {
  readonly clip: Clip;
  readonly lane: Lane;
  readonly height: number;
  /** Footage that was taken out between the clip before and this one, in ticks; 0 for none. */
  readonly removed: Ticks;
}

/** From this width on a join has room to say what is missing. */
const JOIN_PX = 64;

/** Which lane of the timeline lies under the pointer. */
function laneUnder(pointer: globalThis.PointerEvent): string | undefined {
  const row = document
    .elementsFromPoint(pointer.clientX, pointer.clientY)
    .find((e) => e instanceof HTMLElement && e.dataset.lane);
  return (row as HTMLElement | undefined)?.dataset.lane;
}

export const ClipView = memo(function ClipView({ clip, lane, height, removed }: Props) {
  const store = useEditorStore();
  const scale = useEditor((s) => s.pixelsPerSecond);
  const selected = useEditor((s) => selectedItems(s).includes(clip.id));
  const footage = useEditor((s) => s.sources.footage[clip.footageId]);
  const drag = useTimeDrag();
  const left = toPixels(clip.start, scale);
  const width = Math.max(3, toPixels(clip.duration, scale));
  const plain = width < PLAIN_PX;
  const color = `var(--lane-${lane.kind})`;
  const name = footage?.name ?? 'Missing footage';
  const end = clipEnd(clip);
  const picture = isPictureLane(lane);
  const frame = () => frameDuration(store.getState().project.canvas.frameRate);

  const press = (event: React.PointerEvent) => {
    const keys = { ctrl: event.ctrlKey || event.metaKey, shift: event.shiftKey };
    const select = () => pressItem(store, clip.id, keys);
    if (keys.ctrl)
      return drag(
        event,
        [clip.start],
        [clip.id],
        (delta) => ['slip-clip', { clipId: clip.id, by: -delta }],
        select,
      );
    if (keys.shift)
      return drag(
        event,
        [clip.start, end],
        [clip.id],
        (delta) => ['slide-clip', { clipId: clip.id, by: delta }],
        select,
      );
    const chosen = selectedItems(store.getState());
    const ids = chosen.includes(clip.id) ? chosen : [clip.id];
    drag(
      event,
      [clip.start, end],
      ids,
      (by, pointer) => {
        const to = laneUnder(pointer);
        const { lanes } = store.getState().project;
        const sameKind = lanes.find((l) => l.id === to)?.kind === lane.kind;
        return ['move-things', { ids, by, lanes: to && sameKind ? { from: lane.id, to } : null }];
      },
      select,
    );
  };
  const pull = (side: 'start' | 'end') => (event: React.PointerEvent) => {
    const edge = side === 'start' ? clip.start : end;
    const select = () => pressItem(store, clip.id, { ctrl: false, shift: false });
    if (event.ctrlKey || event.metaKey) {
      // The cut at this end belongs to the clip that begins there.
      const at = lane.clips.indexOf(clip);
      const next = side === 'start' ? clip : lane.clips[at + 1];
      if (!next || next.start !== edge) return;
      return drag(
        event,
        [edge],
        [clip.id],
        (delta) => ['roll-cut', { clipId: next.id, by: delta }],
        select,
      );
    }
    const ripple = event.shiftKey;
    drag(
      event,
      [edge],
      [clip.id],
      (delta) => [
        ripple ? 'ripple-trim' : 'trim-clip',
        { clipId: clip.id, end: side, time: edge + delta },
      ],
      select,
      // The first or the last picture that stays.
      picture ? (delta) => edge + delta - (side === 'end' ? frame() : 0) : undefined,
    );
  };
  const pullJoin = (event: React.PointerEvent) =>
    drag(
      event,
      [clip.start],
      [clip.id],
      (delta) => ['open-join', { time: clip.start, length: Math.max(0, delta) }],
      () => store.getState().apply('open-join', { time: clip.start, length: null }),
    );
  const onKey = (event: KeyboardEvent) => {
    if (event.key === 'Enter') {
      pressItem(store, clip.id, { ctrl: event.ctrlKey || event.metaKey, shift: event.shiftKey });
      event.preventDefault();
    }
    // With Alt the arrows move the clip itself, a frame at a time.
    if (event.altKey && (event.key === 'ArrowLeft' || event.key === 'ArrowRight')) {
      event.preventDefault();
      const by = frame() * (event.key === 'ArrowLeft' ? -1 : 1);
      store.getState().apply('move-things', { ids: [clip.id], by, lanes: null }, true);
    }
  };
  const dark = clip.muted || lane.off;
  const speed = ownSpeed(clip);
  return (
    <>
      <div
        role="button"
        tabIndex={selected ? 0 : -1}
        aria-label={`${name}, ${lane.name}, ${ticksToSeconds(clip.duration).toFixed(1)} s${speed === 0 ? ', frozen' : speed === 1 ? '' : `, ${speed}×`}`}
        aria-pressed={selected}
        data-clip={clip.id}
        data-lane-kind={lane.kind}
        onKeyDown={onKey}
        onPointerDown={press}
        onDoubleClick={() => clip.group && store.setState({ openGroup: null })}
        className={`absolute overflow-hidden rounded-(--radius) border-y border-r select-none ${selected ? 'z-10 touch-none outline-2 -outline-offset-2 outline-action' : ''} ${dark ? 'opacity-45' : ''} ${lane.locked ? 'cursor-not-allowed' : 'cursor-grab'}`}
        style={{
          left,
          width,
          top: 1,
          height: height - 2,
          borderColor: color,
          borderLeft: `3px solid ${color}`,
        }}
      >
        {!picture && width > 24 && (
          <LevelLine
            clip={clip}
            width={width}
            height={height - 4}
            selected={selected}
            locked={lane.locked}
          />
        )}
        {!plain && (
          <>
            <span className="pointer-events-none absolute top-0 left-1 flex max-w-full items-center gap-1 truncate bg-sheet/75 pr-1 text-[11px] leading-4">
              {speed === 0 && <Snowflake size={11} aria-hidden className="shrink-0" />}
              {clip.muted && <VolumeX size={11} aria-hidden className="shrink-0" />}
              {width > 28 ? name : ''}
              {speed !== 0 && speed !== 1 && <span className="numbers">{speed}×</span>}
            </span>
            <Ends pull={pull} />
          </>
        )}
        {removed > 0 && !plain && !lane.locked && (
          <span
            data-notch
            className="numbers absolute inset-y-0 left-0 flex min-w-2.5 cursor-e-resize items-end border-l-4 border-dashed border-ink pl-1 text-[10px] leading-3"
            title={`${ticksToSeconds(removed).toFixed(1)} s were taken out here. Press to bring them back, or pull to the right for a part.`}
            onPointerDown={pullJoin}
          >
            {width > JOIN_PX && (
              <span className="bg-sheet/75">{ticksToSeconds(removed).toFixed(1)} s</span>
            )}
          </span>
        )}
      </div>
      {selected && !picture && !lane.locked && width > 24 && (
        <LevelPoints clip={clip} left={left + 3} top={2} width={width - 4} height={height - 4} />
      )}
    </>
  );
});
