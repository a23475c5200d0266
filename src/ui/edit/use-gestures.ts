'use client';
import { useEffect } from 'react';
import { useEditorStore } from './store';

/** Key presses that follow each other within so much time are one gesture, in milliseconds. */
const TOGETHER_MS = 1500;

/**
 * Tells the editor where one gesture ends and the next begins: with each press of the pointer,
 * whenever another control gets the focus, and after a pause between keys. What one gesture does is
 * one step of undo.
 */
export function useGestures(): void {
  const store = useEditorStore();
  useEffect(() => {
    const end = () => store.getState().endGesture();
    let last = 0;
    const onKey = (event: KeyboardEvent) => {
      if (!event.repeat && event.timeStamp - last > TOGETHER_MS) end();
      last = event.timeStamp;
    };
    window.addEventListener('pointerdown', end, { capture: true });
    window.addEventListener('focusin', end);
    window.addEventListener('keydown', onKey, { capture: true });
    return () => {
      window.removeEventListener('pointerdown', end, { capture: true });
      window.removeEventListener('focusin', end);
      window.removeEventListener('keydown', onKey, { capture: true });
    };
  }, [store]);
}
