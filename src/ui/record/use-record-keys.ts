'use client';
import { useMemo } from 'react';
import type { LayoutKind } from '@/core/layout/built-in';
import { useEditorStore } from '../edit/store';
import { isPress } from '../keys/press';
import { useKeyScope } from '../keys/use-key-scope';
import { recordKeys, type RecordAction } from './actions';
import { clearDrawings } from './LiveTools';
import { useRecordStore } from './record-store';

/** Moves to the step after or before, as long as nothing is being recorded. */
export function goToStep(
  editor: ReturnType<typeof useEditorStore>,
  record: ReturnType<typeof useRecordStore>,
  by: number,
): void {
  const { phase, stepId } = record.getState();
  if (phase !== 'ready' && phase !== 'review') return;
  const { steps } = editor.getState().project;
  const index = steps.findIndex((s) => s.id === stepId);
  const next = steps[Math.max(0, Math.min(steps.length - 1, index + by))];
  if (next) record.setState({ stepId: next.id });
}

/** Keys of the Record place, as they are set up. */
export function useRecordKeys(): void {
  const store = useRecordStore();
  const editor = useEditorStore();
  const act = useMemo(
    (): Record<RecordAction, () => void> => ({
      record: () => {
        const { phase, start, stop } = store.getState();
        void (phase === 'ready' ? start() : stop());
      },
      pause: () => {
        const { phase, pause, resume } = store.getState();
        void (phase === 'paused' ? resume() : pause());
      },
      mark: () => {
        const { live, note } = store.getState();
        note({ type: 'mark', name: `Marker ${live.filter((e) => e.type === 'mark').length + 1}` });
      },
      next: () => goToStep(editor, store, 1),
      back: () => goToStep(editor, store, -1),
      redo: () => store.getState().phase === 'review' && void store.getState().keep(true),
      corner: () => store.getState().setLayout('corner' satisfies LayoutKind),
      side: () => store.getState().setLayout('side'),
      presenter: () => store.getState().setLayout('presenter'),
      screen: () => store.getState().setLayout('screen'),
      pen: () => store.setState({ tool: 'pen' }),
      operate: () => store.setState({ tool: 'operate' }),
      clear: () => clearDrawings(store.getState()),
    }),
    [store, editor],
  );
  // Before the practice screen sees them.
  useKeyScope(
    (event) => {
      const { phase, stop } = store.getState();
      if (phase === 'countdown' && isPress(event, 'Escape')) {
        event.preventDefault();
        return void stop();
      }
      const field =
        event.target instanceof HTMLElement &&
        /^(INPUT|TEXTAREA|SELECT)$/.test(event.target.tagName);
      // A key without Ctrl or Alt is text where text is typed.
      const meant = !field || event.ctrlKey || event.metaKey || event.altKey;
      const pressed = ([, keys]: [string, readonly string[]]) =>
        keys.some((name) => isPress(event, name));
      const found = meant && Object.entries(recordKeys()).find(pressed);
      if (!found) {
        const undo = isPress(event, 'Mod+Z');
        if (field || !(undo || isPress(event, 'Mod+Shift+Z'))) return;
        event.preventDefault();
        if (undo) editor.getState().undo();
        else editor.getState().redo();
        return;
      }
      event.preventDefault();
      event.stopPropagation();
      act[found[0] as RecordAction]();
    },
    { early: true },
  );
}
