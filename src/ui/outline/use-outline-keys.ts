'use client';
import { useEffect } from 'react';
import { useEditorStore } from '../edit/store';
import { readClipboard } from './clipboard';
import type { Pasted } from './clipboard';

const typing = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (/^(TEXTAREA|SELECT|INPUT)$/.test(target.tagName) || target.isContentEditable);

/** Undo and redo outside of fields, and scripts that are pasted anywhere else. */
export function useOutlineKeys(onPasted: (pasted: Pasted) => void): void {
  const store = useEditorStore();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (
        typing(event.target) ||
        document.querySelector('[role="dialog"]') ||
        !(event.ctrlKey || event.metaKey)
      )
        return;
      if (event.key.toLowerCase() !== 'z') return;
      event.preventDefault();
      if (event.shiftKey) store.getState().redo();
      else store.getState().undo();
    };
    const onPaste = (event: ClipboardEvent) => {
      if (typing(event.target) || document.querySelector('[role="dialog"]')) return;
      const pasted = readClipboard(event.clipboardData);
      if (!pasted) return;
      event.preventDefault();
      onPasted(pasted);
    };
    window.addEventListener('keydown', onKey);
    window.addEventListener('paste', onPaste);
    return () => {
      window.removeEventListener('keydown', onKey);
      window.removeEventListener('paste', onPaste);
    };
  }, [store, onPasted]);
}
