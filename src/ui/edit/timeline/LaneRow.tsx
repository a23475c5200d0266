'use client';
import { memo, useMemo } from 'react';
import { groupMembers } from '@/core/edit/groups';
import { removedAt } from '@/core/edit/ripple';
import type { Lane } from '@/core/project/model';
import { clipEnd } from '@/core/project/clip-time';
import { endRange, startRange } from '@/core/transition/crossing';
import { ticksToSeconds } from '@/core/time/ticks';
import { useEditor, useEditorStore } from '../store';
import { ClipView } from './ClipView';
import { Crumbs } from './Crumbs';
import { toPixels, type Sight } from './geometry';
import { LanePainting } from './LanePainting';
import { pressItem, selectedItems } from './selecting';
import { TransitionView } from './TransitionView';
import { useTimeDrag } from './use-time-drag';
import { piecesInSight, type Piece } from './visible';

/** What stands on a lane, as far as it is in sight. */
export const LaneRow = memo(function LaneRow({
  lane,
  height,
  sight,
}: {
  lane: Lane;
  height: number;
  sight: Sight;
}) {
  const scale = useEditor((s) => s.pixelsPerSecond);
  const openGroup = useEditor((s) => s.openGroup);
  const sources = useEditor((s) => s.sources);
  const pieces = useMemo(
    () => piecesInSight(lane, sight, scale, openGroup),
    [lane, sight, scale, openGroup],
  );
  const crumbs = useMemo(
    () =>
      pieces.flatMap((piece) =>
        piece.kind === 'crumbs'
          ? lane.clips
              .slice(piece.first, piece.last + 1)
              .map((clip) => ({ id: clip.id, start: clip.start, end: clipEnd(clip) }))
          : [],
      ),
    [lane, pieces],
  );
  const alone = useMemo(
    () => pieces.flatMap((piece) => (piece.kind === 'clip' ? [lane.clips[piece.index]!] : [])),
    [lane, pieces],
  );
  const drawn = pieces.map((piece) => {
    if (piece.kind === 'crumbs') return null;
    if (piece.kind !== 'clip')
      return <Block key={lane.clips[piece.first]!.id} piece={piece} lane={lane} height={height} />;
    const { index } = piece;
    const clip = lane.clips[index]!;
    const opening = clip.transitionIn && startRange(lane, index, sources);
    const closing = clip.transitionOut && endRange(lane, index);
    return [
      <ClipView
        key={clip.id}
        clip={clip}
        lane={lane}
        height={height}
        removed={removedAt(lane.clips[index - 1], clip)}
      />,
      opening && (
        <TransitionView
          key={`${clip.id} in`}
          clip={clip}
          end="start"
          transition={clip.transitionIn!}
          range={opening}
          height={height}
        />
      ),
      closing && (
        <TransitionView
          key={`${clip.id} out`}
          clip={clip}
          end="end"
          transition={clip.transitionOut!}
          range={closing}
          height={height}
        />
      ),
    ];
  });
  return (
    <>
      {crumbs.length > 0 && (
        <Crumbs
          crumbs={crumbs}
          label={`Short clips on ${lane.name}`}
          color={`lane-${lane.kind}`}
          off={lane.off}
          height={height}
          sight={sight}
        />
      )}
      {alone.length > 0 && <LanePainting lane={lane} clips={alone} height={height} sight={sight} />}
      {drawn}
    </>
  );
});

/** A closed group as one item. */
function Block({
  piece,
  lane,
  height,
}: {
  piece: Piece & { kind: 'group' };
  lane: Lane;
  height: number;
}) {
  const store = useEditorStore();
  const scale = useEditor((s) => s.pixelsPerSecond);
  const first = lane.clips[piece.first]!;
  const selected = useEditor((s) => selectedItems(s).includes(first.id));
  const name = useEditor(
    (s) => s.project.groups.find((g) => g.id === first.group)?.name ?? 'Group',
  );
  const drag = useTimeDrag();
  const color = `var(--lane-${lane.kind})`;
  const count = piece.last - piece.first + 1;
  const press = (event: React.PointerEvent) => {
    const keys = { ctrl: event.ctrlKey || event.metaKey, shift: event.shiftKey };
    const ids = groupMembers(store.getState().project, first.group!);
    drag(
      event,
      [piece.start, piece.end],
      ids,
      (by) => ['move-things', { ids, by, lanes: null }],
      () => pressItem(store, first.id, keys),
    );
  };
  const open = () => store.setState({ openGroup: first.group });
  return (
    <div
      role="button"
      tabIndex={selected ? 0 : -1}
      aria-label={`${name}, ${count} clips on ${lane.name}, ${ticksToSeconds(piece.end - piece.start).toFixed(1)} s`}
      aria-pressed={selected}
      data-block="group"
      data-item={first.id}
      onPointerDown={press}
      onDoubleClick={open}
      onKeyDown={(event) =>
        event.key === 'Enter' &&
        (selected ? open() : pressItem(store, first.id, { ctrl: false, shift: false }))
      }
      className={`absolute overflow-hidden rounded-(--radius) border border-dashed ${selected ? 'z-10 outline-2 -outline-offset-2 outline-action' : ''} ${lane.off ? 'opacity-45' : ''}`}
      style={{
        left: toPixels(piece.start, scale),
        width: Math.max(2, toPixels(piece.end - piece.start, scale)),
        top: 1,
        height: height - 2,
        borderColor: color,
        borderLeft: `3px solid ${color}`,
        backgroundColor: `color-mix(in srgb, ${color} 28%, var(--sheet))`,
      }}
    >
      <span className="pointer-events-none block truncate px-1 text-[11px] leading-4">
        {name} · {count} {count === 1 ? 'clip' : 'clips'}
      </span>
    </div>
  );
}
