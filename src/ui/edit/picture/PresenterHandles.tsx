'use client';
import type { KeyboardEvent, PointerEvent } from 'react';
import { movedInset, sizedInset } from '@/core/layout/by-hand';
import { PEBBLE } from '@/core/layout/own-shape';
import { FootageLook, type PresenterPlacement } from '@/core/project/model';
import { lookOf } from '@/core/project/query';
import type { InOutput } from '@/core/scale/rect';
import { frontmost, presenterOf, sceneAt } from '@/core/scene/scene';
import { readNumberSetting } from '@/core/schema/setting';
import { useAtPlayhead, useEditor, useEditorStore } from '../store';
import { takeArrow } from './arrows';
import { followDrag } from './drag';
import { ShapePoints } from './ShapePoints';
import { TurnKnob } from './TurnKnob';

/** An arrow changes the size by so much of the frame's height; with Shift by more. */
const NUDGE = 0.01;
const LARGE_NUDGE = 0.05;

const TILT = readNumberSetting(FootageLook.properties.tilt);
/**
 * The selected presenter's inset: dragged to a corner, sized by the corner within the picture,
 * turned by the knob at its top.
 */
export function PresenterHandles({ scale }: { scale: number }) {
  const store = useEditorStore();
  const canvas = useEditor((s) => s.project.canvas);
  const box = useAtPlayhead((s, playhead) => {
    const scene = sceneAt(s.project, s.sources, playhead);
    const shown = frontmost(scene, 'presenter');
    // A layout that places the presenter itself has no inset that could be moved.
    if (!shown || scene.layout.presenter !== 'placed') return null;
    return presenterOf(scene, shown)?.place.destination ?? null;
  });
  const footageId = useAtPlayhead(
    (s, playhead) =>
      frontmost(sceneAt(s.project, s.sources, playhead), 'presenter')?.clip.footageId ?? null,
  );
  const tilt = useEditor((s) => (footageId && lookOf(s.project, footageId)?.tilt) || 0);
  const placed = useEditor((s) => s.project.presenter);
  if (!box)
    return (
      <p className="absolute top-1 left-1 bg-sheet px-2 py-0.5 text-xs">
        The presenter is not in a corner here; go to where they are to move them.
      </p>
    );
  const [vertical, horizontal] = placed.corner.split('-') as ['top' | 'bottom', 'left' | 'right'];
  const move = (event: PointerEvent<HTMLElement>) => {
    event.currentTarget.focus({ preventScroll: true });
    const under = store.getState().drag();
    followDrag(event, (dx, dy) => {
      const moved = { ...box, x: box.x + dx / scale, y: box.y + dy / scale } as InOutput;
      under.to('change-presenter', { change: movedInset(moved, canvas) });
    });
  };
  const resize = (event: PointerEvent<HTMLElement>) => {
    event.currentTarget.focus({ preventScroll: true });
    const under = store.getState().drag();
    const [sx, sy] = [horizontal === 'left' ? 1 : -1, vertical === 'top' ? 1 : -1];
    followDrag(event, (dx, dy) => {
      const by = Math.max(sx * dx * (box.height / box.width), sy * dy) / scale;
      under.to('change-presenter', { change: sizedInset(box.height + by, canvas) });
    });
  };
  const change = (what: Partial<PresenterPlacement>) =>
    store.getState().apply('change-presenter', { change: what }, true);
  const moveByKey = (event: KeyboardEvent) => {
    const way = takeArrow(event);
    if (!way) return;
    const [dx, dy] = way;
    const across = dx ? (dx < 0 ? 'left' : 'right') : horizontal;
    const down = dy ? (dy < 0 ? 'top' : 'bottom') : vertical;
    change({ corner: `${down}-${across}` });
  };
  const sizeByKey = (event: KeyboardEvent) => {
    const way = takeArrow(event);
    if (!way) return;
    const larger = way[0] > 0 || way[1] < 0 ? 1 : -1;
    const by = larger * (event.shiftKey ? LARGE_NUDGE : NUDGE) * canvas.height;
    change(sizedInset(placed.size * canvas.height + by, canvas));
  };
  const turned = (degrees: number) => ({ footageId: footageId!, change: { tilt: degrees } });
  return (
    <div
      role="group"
      tabIndex={0}
      aria-label="Presenter: drag, or use the arrow keys, to another corner"
      data-testid="presenter-box"
      data-handle="presenter"
      className="absolute cursor-move border-2 border-dashed border-playhead"
      style={{
        left: box.x * scale,
        top: box.y * scale,
        width: box.width * scale,
        height: box.height * scale,
        transform: tilt ? `rotate(${tilt}deg)` : undefined,
      }}
      onPointerDown={move}
      onKeyDown={moveByKey}
    >
      <TurnKnob
        what="the presenter"
        degrees={tilt}
        least={TILT.min}
        most={TILT.max}
        testId="presenter-turn"
        begin={() => {
          const under = store.getState().drag();
          return (degrees) => under.to('change-look', turned(degrees));
        }}
        byKey={(degrees) => store.getState().apply('change-look', turned(degrees), true)}
      />
      <span
        role="group"
        tabIndex={0}
        aria-label="Size of the presenter: drag, or use the arrow keys"
        title="Size"
        data-testid="presenter-size"
        className="absolute size-3 -translate-1/2 cursor-nwse-resize border-2 border-ink bg-sheet"
        style={{
          left: horizontal === 'left' ? '100%' : 0,
          top: vertical === 'top' ? '100%' : 0,
        }}
        onPointerDown={resize}
        onKeyDown={sizeByKey}
      />
      {placed.shape === 'own' && (
        <ShapePoints
          points={placed.path ?? PEBBLE}
          width={box.width * scale}
          height={box.height * scale}
          onPoints={(path) => change({ path })}
          begin={() => {
            const under = store.getState().drag();
            return (path) => under.to('change-presenter', { change: { path } });
          }}
        />
      )}
    </div>
  );
}
