'use client';
import type { CSSProperties, KeyboardEvent, PointerEvent } from 'react';
import type { Handle } from '@/core/callout/kind';
import { kindOf } from '@/core/callout/kinds';
import { movesAll } from '@/core/callout/moved';
import { calloutScene } from '@/core/frame/callout-layers';
import { sceneAt } from '@/core/scene/scene';
import { contains } from '@/core/time/ranges';
import { mendedBy } from '../mend-way';
import { useEditor, useEditorStore, useTransport } from '../store';
import { takeArrow } from './arrows';
import { dragCallout } from './callout-drag';
import { moveCallout } from './move-callout';
import { movingTogether } from './move-together';
import { shiftedOutput } from './place-in-frame';
import { shownPlace } from './shown-place';

/** An area can be taken hold of even where it is narrower. */
const LEAST_AREA = 12;
/** With Shift an arrow moves by so many frame pixels. */
const LARGE_NUDGE = 10;

/** What handles look like; the words of a text are larger than the box that stands for them. */
const LOOKS: Readonly<Record<Handle['look'], string>> = {
  point: 'size-4 -translate-1/2 rounded-full border-2 border-ink bg-sheet/80 cursor-move',
  words: 'border-2 border-dashed border-ink cursor-move',
  area: 'border-2 border-dashed border-playhead cursor-move',
  corner: 'size-3 -translate-1/2 border-2 border-ink bg-sheet cursor-nwse-resize',
};

function Note({ children }: { children: string }) {
  return <p className="absolute top-1 left-1 bg-sheet px-2 py-0.5 text-xs">{children}</p>;
}

/** Handles of a selected callout, as its kind says. */
export function CalloutHandles({
  id,
  scale,
  first,
}: {
  id: string;
  scale: number;
  /** Whether it is the one that says why it can't be moved here. */
  first: boolean;
}) {
  const store = useEditorStore();
  const callout = useEditor((s) => s.project.callouts.find((c) => c.id === id));
  const sources = useEditor((s) => s.sources);
  const project = useEditor((s) => s.project);
  const playhead = useTransport((t) => t.playhead);
  if (!callout) return null;
  if (!contains(callout, playhead))
    return first && <Note>The playhead is outside this callout; go to it to move it.</Note>;
  const on = calloutScene(sceneAt(project, sources, playhead), callout);
  if (!on) return first && <Note>What this callout stands on is not shown here.</Note>;
  const kind = kindOf(callout);
  const ratio = on.scale * scale;
  const words = shownPlace(callout, on);
  const turnedStyle = (x: number, y: number): CSSProperties =>
    on.turn ? { rotate: `${on.turn}deg`, transformOrigin: `${x}px ${y}px` } : {};
  const styleOf = ({ look, at, shift, size }: Handle): CSSProperties => {
    if (look === 'words' && words) {
      const { box, about } = words;
      const [left, top] = [box.x * scale, box.y * scale];
      return {
        ...{ left, top, width: box.width * scale, height: box.height * scale },
        ...turnedStyle(about.x * scale - left, about.y * scale - top),
      };
    }
    const { x, y } = shiftedOutput(on, at, shift);
    return {
      ...{ left: x * scale, top: y * scale },
      ...(look === 'area' && turnedStyle(0, 0)),
      ...(size && {
        width: Math.max(LEAST_AREA, size.width * ratio),
        height: Math.max(LEAST_AREA, size.height * ratio),
      }),
      // Where words are is the middle of what stands for them.
      ...(look === 'words' && { transform: 'translate(-50%, -50%)' }),
    };
  };
  const onKey = (event: KeyboardEvent, handle: Handle) => {
    const way = takeArrow(event);
    if (!way) return;
    const by = event.shiftKey ? LARGE_NUDGE : 1;
    const [dx, dy] = [way[0] * by, way[1] * by];
    const state = store.getState();
    const mended = movesAll(handle) && mendedBy(state, callout, on, playhead, { dx, dy });
    if (mended) return void state.apply('move-followed', mended, true);
    const together = movesAll(handle) && movingTogether(state);
    if (together) return void state.apply('change-callouts', together({ dx, dy }), true);
    const change = moveCallout(state, callout, handle, on, { dx, dy });
    state.apply('change-callout', { id, change }, true);
  };
  const drag = (event: PointerEvent<HTMLElement>, handle: Handle) => {
    event.currentTarget.focus({ preventScroll: true });
    dragCallout(event, store.getState(), callout, handle, on, scale);
  };
  return kind
    .handles(callout)
    .map((handle) => (
      <span
        key={handle.id}
        className={`absolute ${LOOKS[handle.look]}`}
        style={styleOf(handle)}
        data-testid={`callout-${handle.id}`}
        title={handle.label}
        role="group"
        data-handle={handle.id}
        tabIndex={0}
        aria-label={`${handle.label}: drag, or use the arrow keys, to move it`}
        onKeyDown={(event) => onKey(event, handle)}
        onPointerDown={(event) => drag(event, handle)}
      />
    ));
}
