'use client';
import { useMemo } from 'react';
import type { LayoutKind } from '@/core/layout/built-in';
import { useEditorStore } from '../edit/store';
import { useKeyScope } from '../keys/use-key-scope';
import { clearDrawings } from './LiveTools';
import { useRecordStore } from './record-store';
import { keyName, type RecordAction } from './settings';

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
      const name = keyName(event);
      const {
        settings: { keys },
        phase,
        stop,
      } = store.getState();
      if (name === 'Escape' && phase === 'countdown') {
        event.preventDefault();
        return void stop();
      }
      const field =
        event.target instanceof HTMLElement &&
        /^(INPUT|TEXTAREA|SELECT)$/.test(event.target.tagName);
      const found = (Object.keys(keys) as RecordAction[]).find((action) => keys[action] === name);
      // A key without Ctrl or Alt is text where text is typed.
      if (!found || (field && !/^(Ctrl|Alt)\+/.test(name!))) {
        if (!field && (name === 'Ctrl+Z' || name === 'Ctrl+Shift+Z')) {
          event.preventDefault();
          if (name === 'Ctrl+Z') editor.getState().undo();
          else editor.getState().redo();
        }
        return;
      }
      event.preventDefault();
      event.stopPropagation();
      act[found]();
    },
    { early: true },
  );
}
