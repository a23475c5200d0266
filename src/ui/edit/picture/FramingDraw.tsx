'use client';
import { useEffect, useState, type PointerEvent } from 'react';
import { viewOfDrawn } from '@/core/framing/by-hand';
import { rectAround, type Rect } from '@/core/scale/rect';
import { frontmost, sceneAt } from '@/core/scene/scene';
import { tellFault } from '../../shell/notices-store';
import { addFraming, newFraming } from '../new-framing';
import { playheadOf, useEditor, useEditorStore } from '../store';
import { useWhole } from '../use-whole';
import { followDrag } from './drag';

/** Smaller ones are a slip of the hand, in CSS pixels. */
const LEAST = 8;

/** Takes a rectangle that is drawn over the whole screen as the view of a framing. */
export function FramingDraw({ scale }: { scale: number }) {
  const store = useEditorStore();
  const canvas = useEditor((s) => s.project.canvas);
  const selected = useEditor((s) =>
    s.selection?.kind === 'framings'
      ? s.project.framings.find((f) => f.id === (s.selection as { id: string }).id)
      : undefined,
  );
  const here = useEditor((s) => {
    const at = { project: s.project, sources: s.sources, time: playheadOf(s) };
    return frontmost(sceneAt(at.project, at.sources, at.time), 'screen');
  });
  const footageId = selected?.footageId ?? here?.footage.id;
  const whole = useWhole(footageId);
  const [drawn, setDrawn] = useState<Rect | null>(null);
  useEffect(() => {
    store.setState({ view: { whole: true } });
    return () => store.setState({ view: {} });
  }, [store]);
  if (!whole || !footageId) return null;
  const ratio = (canvas.width * scale) / whole.width;
  const done = (rect: Rect | null) => {
    setDrawn(null);
    store.setState({ drawing: null });
    if (!rect || Math.max(rect.width, rect.height) < LEAST)
      return tellFault('Draw a rectangle over what is to be seen.');
    const footage = {
      x: whole.x + rect.x / ratio,
      y: whole.y + rect.y / ratio,
      width: rect.width / ratio,
      height: rect.height / ratio,
    };
    const view = { ...viewOfDrawn(footage, whole, canvas) };
    const { apply } = store.getState();
    if (selected)
      return apply('change-framing', { id: selected.id, change: { rect: view, pinned: true } });
    const framing = newFraming(store.getState(), footageId, view);
    if (framing) addFraming(store, framing);
  };
  const begin = (event: PointerEvent) => {
    const box = event.currentTarget.getBoundingClientRect();
    const from = { x: event.clientX - box.left, y: event.clientY - box.top };
    let rect: Rect | null = null;
    followDrag(
      event,
      (dx, dy) => {
        rect = rectAround([from, { x: from.x + dx, y: from.y + dy }]);
        setDrawn(rect);
      },
      () => done(rect),
    );
  };
  return (
    <div
      className="absolute inset-0 cursor-crosshair"
      onPointerDown={begin}
      data-testid="framing-draw"
    >
      {drawn && (
        <span
          className="absolute border-2 border-dashed border-playhead bg-sheet/20"
          style={{ left: drawn.x, top: drawn.y, width: drawn.width, height: drawn.height }}
        />
      )}
    </div>
  );
}
