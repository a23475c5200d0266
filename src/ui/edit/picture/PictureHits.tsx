'use client';
import type { MouseEvent, PointerEvent } from 'react';
import { kindOf } from '@/core/callout/kinds';
import { movedInset } from '@/core/layout/by-hand';
import type { InOutput, PointInOutput } from '@/core/scale/rect';
import { sceneAt } from '@/core/scene/scene';
import { playheadOf, selectedSpans, useEditorStore } from '../store';
import { pressItem } from '../timeline/selecting';
import { followDrag } from './drag';
import { movingTogether } from './move-together';
import { thingAt, type Thing } from './thing-at';

/** Gives the handle of what was just selected the focus, so that arrow keys move it. */
const focusOn = (handle: string): void => {
  requestAnimationFrame(() =>
    document
      .querySelector<HTMLElement>(`[data-handle="${handle}"]`)
      ?.focus({ preventScroll: true }),
  );
};

/**
 * Lets what is seen in the Picture be pressed, which selects it (with Ctrl or Shift beside what is
 * selected), and dragged at once, which moves
 * it: callouts, covers, the presenter. The screen itself is only selected.
 */
export function PictureHits({ scale }: { scale: number }) {
  const store = useEditorStore();
  const find = (event: MouseEvent): Thing | null => {
    const { project, sources } = store.getState();
    const box = event.currentTarget.getBoundingClientRect();
    const point = { x: (event.clientX - box.left) / scale, y: (event.clientY - box.top) / scale };
    return thingAt(sceneAt(project, sources, playheadOf(store.getState())), point as PointInOutput);
  };
  /** Selects what is there, and answers it. */
  const choose = (event: MouseEvent): Thing | null => {
    const { select } = store.getState();
    const thing = find(event);
    if (!thing) select(null);
    else if (thing.kind === 'screen') select({ kind: 'clip', id: thing.clipId });
    else if (thing.kind === 'presenter') select({ kind: 'presenter' });
    // Several that are selected stay so.
    else if (!selectedSpans(store.getState()).includes(thing.callout.id))
      select({ kind: 'callouts', id: thing.callout.id });
    return thing;
  };
  const press = (event: PointerEvent) => {
    if (event.button !== 0) return;
    const { drag } = store.getState();
    if (event.ctrlKey || event.metaKey || event.shiftKey) {
      const thing = find(event);
      if (thing?.kind !== 'callout') return;
      event.preventDefault();
      return pressItem(store, thing.callout.id, { ctrl: true, shift: false });
    }
    const thing = choose(event);
    if (!thing || thing.kind === 'screen') return;
    if (thing.kind === 'presenter') {
      focusOn('presenter');
      const { inset } = thing;
      if (!inset) return;
      const { width, height } = store.getState().project.canvas;
      const under = drag();
      return followDrag(event, (dx, dy) => {
        const moved = { ...inset, x: inset.x + dx / scale, y: inset.y + dy / scale } as InOutput;
        under.to('change-presenter', { change: movedInset(moved, { width, height }) });
      });
    }
    const { callout, handle, on } = thing;
    focusOn(handle.id);
    const ratio = on.scale * scale;
    const under = drag();
    const together = movingTogether(store.getState());
    followDrag(event, (dx, dy) => {
      if (together)
        return under.to('change-callouts', together({ dx: dx / scale, dy: dy / scale }));
      const move = {
        by: { dx: dx / ratio, dy: dy / ratio },
        frame: { dx: dx / scale, dy: dy / scale },
      };
      const change = kindOf(callout).withHandle(callout, handle.id, move);
      under.to('change-callout', { id: callout.id, change });
    });
  };
  const point = (event: PointerEvent<HTMLElement>) => {
    if (event.buttons) return;
    const kind = find(event)?.kind;
    event.currentTarget.style.cursor = kind && kind !== 'screen' ? 'move' : 'default';
  };
  return (
    <div
      className="absolute inset-0"
      onPointerDown={press}
      onPointerMove={point}
      onContextMenu={choose}
    />
  );
}
