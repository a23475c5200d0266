'use client';
import { useState, type KeyboardEvent, type PointerEvent } from 'react';
import { dragBox, type DraggedBox, type Grip } from '@/core/layout/box-drag';
import { withPresenterBox } from '@/core/layout/by-hand';
import type { Box } from '@/core/layout/model';
import { PEBBLE, type OwnShape } from '@/core/layout/own-shape';
import { presenterBoxAt, sceneAt } from '@/core/scene/scene';
import { contains } from '@/core/time/ranges';
import { playheadOf, useAtPlayhead, useEditor, useEditorStore, useTransport } from '../store';
import { takeArrow } from './arrows';
import { dragLayoutBox, withBox, type BoxName } from './layout-drag';
import { ShapePoints } from './ShapePoints';
import { SnapLines } from './SnapLines';

/** An arrow moves and sizes by so much of the picture; with Shift by more. */
const NUDGE = 0.005;
const LARGE_NUDGE = 0.05;

const CORNERS: readonly (readonly [Grip, string])[] = [
  ['top-left', 'top-0 left-0 cursor-nwse-resize'],
  ['top-right', 'top-0 left-full cursor-nesw-resize'],
  ['bottom-left', 'top-full left-0 cursor-nesw-resize'],
  ['bottom-right', 'top-full left-full cursor-nwse-resize'],
];
const LOOK: Readonly<Record<BoxName, string>> = {
  screen: 'border-lane-screen',
  presenter: 'border-lane-presenter',
};
const TITLE: Readonly<Record<BoxName, string>> = { screen: 'Screen', presenter: 'Presenter' };

/** The boxes of the selected layout: dragged anywhere, sized by their corners. */
export function LayoutHandles({ id, scale }: { id: string; scale: number }) {
  const store = useEditorStore();
  const canvas = useEditor((s) => s.project.canvas);
  const span = useEditor((s) => s.project.layouts.find((l) => l.id === id));
  const playhead = useTransport((t) => t.playhead);
  const project = useEditor((s) => s.project);
  const sources = useEditor((s) => s.sources);
  // Where the project places them is worked out anew each time: no selector may answer that.
  const presenter = span ? presenterBoxAt({ project, sources, time: playhead }, span.layout) : null;
  const gliding = useAtPlayhead((s, time) => sceneAt(s.project, s.sources, time).gliding);
  const [lines, setLines] = useState<DraggedBox['lines'] | null>(null);
  if (!span) return null;
  if (!contains(span, playhead))
    return (
      <p className="absolute top-1 left-1 bg-sheet px-2 py-0.5 text-xs">
        The playhead is outside this layout; go to it to change it.
      </p>
    );
  const { layout } = span;
  const boxes: readonly (readonly [BoxName, Box])[] = [
    ...(layout.screen ? [['screen', layout.screen.box] as const] : []),
    ...(presenter ? [['presenter', presenter.box] as const] : []),
  ];
  const drag = (name: BoxName, grip: Grip) => (event: PointerEvent<HTMLElement>) => {
    event.currentTarget.focus({ preventScroll: true });
    const state = store.getState();
    dragLayoutBox(event, state, span, name, grip, playheadOf(state), scale, setLines);
  };
  const byKey = (name: BoxName, box: Box, grip: Grip) => (event: KeyboardEvent) => {
    const way = takeArrow(event);
    if (!way) return;
    const by = event.shiftKey ? LARGE_NUDGE : NUDGE;
    const { box: next } = dragBox(box, grip, way[0] * by, way[1] * by, {
      frame: canvas,
      keepShape: name === 'presenter' && presenter?.shape === 'circle',
      aboutMiddle: false,
      reach: 0,
      others: [],
    });
    const change = { layout: withBox(layout, name, next, presenter) };
    store.getState().apply('change-layout', { id, change }, true);
  };
  const shaped = (path: OwnShape) => ({
    layout: withPresenterBox(layout, presenter && { ...presenter, path }),
  });
  const place = ({ x, y, width, height }: Box) => ({
    ...{ left: `${x * 100}%`, top: `${y * 100}%` },
    ...{ width: `${width * 100}%`, height: `${height * 100}%` },
  });
  return (
    <>
      {boxes.map(([name, box]) => (
        <div
          key={name}
          role="group"
          tabIndex={0}
          aria-label={`${TITLE[name]} of the layout: drag, or use the arrow keys, to move it`}
          data-testid={`layout-${name}`}
          data-handle={`layout-${name}`}
          className={`absolute cursor-move border-2 ${LOOK[name]}`}
          style={place(box)}
          onPointerDown={drag(name, 'all')}
          onKeyDown={byKey(name, box, 'all')}
        >
          <span className="pointer-events-none absolute top-0 left-0 bg-sheet px-1 text-[11px] leading-4">
            {TITLE[name]}
          </span>
          {CORNERS.map(([grip, at]) => (
            <span
              key={grip}
              role="group"
              tabIndex={grip === 'bottom-right' ? 0 : -1}
              aria-label={`Size of the ${name}, ${grip.replace('-', ' ')}: drag, or use the arrow keys`}
              title="Size; Shift keeps the shape or frees it, Ctrl sizes about the middle"
              data-testid={`layout-${name}-${grip}`}
              className={`absolute grid size-6 -translate-1/2 place-items-center ${at}`}
              onPointerDown={drag(name, grip)}
              onKeyDown={byKey(name, box, grip)}
            >
              <span className="size-3 border-2 border-ink bg-sheet" />
            </span>
          ))}
          {name === 'presenter' && presenter?.shape === 'own' && (
            <ShapePoints
              points={presenter.path ?? PEBBLE}
              width={box.width * canvas.width * scale}
              height={box.height * canvas.height * scale}
              onPoints={(path) =>
                store.getState().apply('change-layout', { id, change: shaped(path) }, true)
              }
              begin={() => {
                const under = store.getState().drag();
                return (path) => under.to('change-layout', { id, change: shaped(path) });
              }}
            />
          )}
        </div>
      ))}
      {gliding && (
        <p className="absolute top-1 left-1/2 -translate-x-1/2 bg-sheet px-2 py-0.5 text-xs">
          On its way; the boxes show where it comes to rest
        </p>
      )}
      <SnapLines lines={lines} />
    </>
  );
}
