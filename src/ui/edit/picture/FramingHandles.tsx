'use client';
import { useEffect } from 'react';
import { pageAt } from '@/core/framing/cuts';
import type { Framing } from '@/core/project/model';
import type { InFootage } from '@/core/scale/rect';
import { judgeScale, magnification } from '@/core/scale/sharpness';
import { SHARPNESS_WORDS } from '../sharpness-words';
import { useAtPlayhead, useEditor, useEditorStore, useTransport } from '../store';
import { useFramingLimit } from '../use-framing-limit';
import { useTurning } from '../use-turning';
import { useWhole } from '../use-whole';
import { ViewRect, type ViewGesture } from './ViewRect';

/** The view rectangles of the selected framing, to be moved and sized on the whole screen. */
export function FramingHandles({ id, scale }: { id: string; scale: number }) {
  const store = useEditorStore();
  const framing = useEditor((s) => s.project.framings.find((f) => f.id === id));
  const canvas = useEditor((s) => s.project.canvas);
  const whole = useWhole(framing?.footageId);
  const { limit, crisp } = useFramingLimit(framing);
  const turnTo = useTurning(id);
  const playing = useTransport((t) => t.rate !== 0);
  const page = useAtPlayhead((s, playhead) =>
    framing ? pageAt(s.project, s.sources, framing.footageId, playhead) : null,
  );
  useEffect(() => {
    store.setState({ view: playing ? {} : { whole: true } });
    return () => store.setState({ view: {} });
  }, [store, playing]);
  if (!framing || !whole || playing) return null;
  const { turn = 0 } = framing;
  const gestureOf = (name: 'rect' | 'endRect'): ViewGesture => {
    const begin =
      <T,>(changed: (to: T) => Partial<Framing>) =>
      () => {
        const under = store.getState().drag();
        return (to: T) =>
          under.to('change-framing', { id, change: { ...changed(to), pinned: true } });
      };
    // Both views turn together, by the one that lies in front.
    const isFront = name === 'endRect' || !framing.endRect;
    const seeing = (rect: InFootage) => ({ [name]: { ...rect } });
    return {
      begin: begin(seeing),
      byKey: (rect) =>
        store
          .getState()
          .apply('change-framing', { id, change: { ...seeing(rect), pinned: true } }, true),
      turn: isFront ? { begin: begin((turn: number) => ({ turn })), byKey: turnTo } : null,
    };
  };
  const shared = { whole, page, ratio: (canvas.width * scale) / whole.width };
  const view = (name: 'rect' | 'endRect', words: string) => {
    const rect = framing[name];
    if (!rect) return null;
    const close = magnification(rect, whole, canvas);
    const sharpness = judgeScale(close / limit, crisp > limit, turn);
    return (
      <ViewRect
        {...shared}
        rect={rect}
        turn={turn}
        label={`${words}${close.toFixed(2)}× ${SHARPNESS_WORDS[sharpness]}`}
        soft={sharpness === 'soft'}
        dashed={name === 'endRect'}
        dimmed={name === 'rect'}
        testId={name === 'rect' ? 'framing-rect' : 'framing-end'}
        gesture={gestureOf(name)}
      />
    );
  };
  return (
    <>
      {view('rect', framing.endRect ? 'begins ' : '')}
      {view('endRect', 'ends ')}
    </>
  );
}
