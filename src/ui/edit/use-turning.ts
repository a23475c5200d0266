import { useRef } from 'react';
import type { Framing } from '@/core/project/model';
import { same } from '@/core/schema/same';
import { useEditorStore } from './store';

type Views = Pick<Framing, 'rect' | 'endRect'>;
const viewsOf = ({ rect, endRect }: Framing): Views => ({ rect, endRect });

/**
 * Turns a framing step by step. A view comes closer where its turn needs room; as long as nobody
 * else changes it, each step begins from the view that it was before the first, so that turning back
 * brings that back.
 */
export function useTurning(id: string): (degrees: number) => void {
  const store = useEditorStore();
  const last = useRef<{ readonly from: Views; readonly to: Views } | null>(null);
  return (degrees) => {
    const now = () => store.getState().project.framings.find((f) => f.id === id);
    const framing = now();
    if (!framing) return;
    const views = viewsOf(framing);
    const from = last.current && same(last.current.to, views) ? last.current.from : views;
    const change = { turn: degrees, ...from, pinned: true };
    if (!store.getState().apply('change-framing', { id, change }, true)) return;
    last.current = { from, to: viewsOf(now() ?? framing) };
  };
}
