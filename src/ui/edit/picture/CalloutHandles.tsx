'use client';
import type { PointerEvent } from 'react';
import { changeSpan } from '@/core/edit/spans';
import { sceneAt, screenShowing } from '@/core/scene/scene';
import { contains } from '@/core/time/ranges';
import { useEditor, useEditorStore } from '../store';
import { followDrag } from './drag';

/** Handles of the selected callout: the arrow's tip and the box, or the corners of a cover. */
export function CalloutHandles({ id, scale }: { id: string; scale: number }) {
  const store = useEditorStore();
  const callout = useEditor((s) => s.project.callouts.find((c) => c.id === id));
  const sources = useEditor((s) => s.sources);
  const project = useEditor((s) => s.project);
  const playhead = useEditor((s) => s.playhead);
  if (!callout) return null;
  if (!contains(callout, playhead))
    return (
      <p className="absolute top-1 left-1 bg-sheet px-2 py-0.5 text-xs">
        The playhead is outside this callout; go to it to move it.
      </p>
    );
  const screen = screenShowing(sceneAt(project, sources, playhead), callout.footageId);
  if (!screen)
    return (
      <p className="absolute top-1 left-1 bg-sheet px-2 py-0.5 text-xs">
        The recording that this callout belongs to is not shown here.
      </p>
    );
  const { stage, view } = screen;
  const ratio = (stage.width * scale) / view.width;
  const toCss = (x: number, y: number) => ({
    left: stage.x * scale + (x - view.x) * ratio,
    top: stage.y * scale + (y - view.y) * ratio,
  });

  const drag = (event: PointerEvent, label: string, change: (dx: number, dy: number) => object) => {
    const under = store.getState().drag(label);
    followDrag(event, (dx, dy) =>
      under.to((draft) => changeSpan(draft, 'callouts', id, change(dx, dy))),
    );
  };
  if (callout.kind === 'text') {
    const { anchor, offset } = callout;
    const tip = toCss(anchor.x, anchor.y);
    const box = { left: tip.left + offset.dx * scale, top: tip.top + offset.dy * scale };
    return (
      <>
        <span
          className="absolute size-4 -translate-1/2 cursor-move rounded-full border-2 border-ink bg-sheet/80"
          style={tip}
          data-testid="callout-tip"
          title="Where the arrow points"
          onPointerDown={(e) =>
            drag(e, 'Move callout’s arrow', (dx, dy) => ({
              anchor: { x: anchor.x + dx / ratio, y: anchor.y + dy / ratio },
              offset: { dx: offset.dx - dx / scale, dy: offset.dy - dy / scale },
            }))
          }
        />
        <span
          className="absolute h-6 w-16 -translate-1/2 cursor-move border-2 border-dashed border-ink bg-sheet/30"
          style={box}
          data-testid="callout-box"
          title="The words"
          onPointerDown={(e) =>
            drag(e, 'Move callout', (dx, dy) => ({
              offset: { dx: offset.dx + dx / scale, dy: offset.dy + dy / scale },
            }))
          }
        />
      </>
    );
  }
  if (callout.kind !== 'cover') {
    const points =
      callout.kind === 'shape'
        ? [callout.from, callout.to]
        : callout.points.map(([, x, y]) => ({ x, y }));
    const left = Math.min(...points.map((p) => p.x));
    const top = Math.min(...points.map((p) => p.y));
    const shift = (p: { x: number; y: number }, dx: number, dy: number) => ({
      x: p.x + dx / ratio,
      y: p.y + dy / ratio,
    });
    return (
      <div
        className="absolute cursor-move border-2 border-dashed border-ink"
        style={{
          ...toCss(left, top),
          width: Math.max(12, (Math.max(...points.map((p) => p.x)) - left) * ratio),
          height: Math.max(12, (Math.max(...points.map((p) => p.y)) - top) * ratio),
        }}
        data-testid="drawing-rect"
        onPointerDown={(e) =>
          drag(e, 'Move drawing', (dx, dy) =>
            callout.kind === 'shape'
              ? { from: shift(callout.from, dx, dy), to: shift(callout.to, dx, dy) }
              : { points: callout.points.map(([t, x, y]) => [t, x + dx / ratio, y + dy / ratio]) },
          )
        }
      />
    );
  }
  const { rect } = callout;
  return (
    <div
      className="absolute cursor-move border-2 border-dashed border-playhead"
      style={{ ...toCss(rect.x, rect.y), width: rect.width * ratio, height: rect.height * ratio }}
      data-testid="cover-rect"
      onPointerDown={(e) =>
        drag(e, 'Move cover', (dx, dy) => ({
          rect: { ...rect, x: rect.x + dx / ratio, y: rect.y + dy / ratio },
        }))
      }
    >
      <span
        className="absolute -right-1.5 -bottom-1.5 size-3 cursor-nwse-resize border-2 border-ink bg-sheet"
        onPointerDown={(e) =>
          drag(e, 'Size cover', (dx, dy) => ({
            rect: {
              ...rect,
              width: Math.max(8, rect.width + dx / ratio),
              height: Math.max(8, rect.height + dy / ratio),
            },
          }))
        }
      />
    </div>
  );
}
