'use client';
import { useEffect } from 'react';
import { useEditorStore } from '../edit/store';
import { isPress, isTyping } from '../keys/press';
import { useKeyScope } from '../keys/use-key-scope';
import { readClipboard } from './clipboard';
import type { Pasted } from './clipboard';

/** Undo, redo and the table of keys outside of fields, and scripts that are pasted anywhere else. */
export function useOutlineKeys(onPasted: (pasted: Pasted) => void, onKeys: () => void): void {
  const store = useEditorStore();
  useKeyScope((event) => {
    if (isTyping(event)) return;
    if (isPress(event, 'Mod+Z')) store.getState().undo();
    else if (isPress(event, 'Mod+Shift+Z')) store.getState().redo();
    else if (isPress(event, '?')) onKeys();
    else return;
    event.preventDefault();
  });
  useEffect(() => {
    const onPaste = (event: ClipboardEvent) => {
      // A script that is pasted while a dialog is open is meant for that.
      if (isTyping(event) || document.querySelector('[role="dialog"]')) return;
      const pasted = readClipboard(event.clipboardData);
      if (!pasted) return;
      event.preventDefault();
      onPasted(pasted);
    };
    window.addEventListener('paste', onPaste);
    return () => window.removeEventListener('paste', onPaste);
  }, [onPasted]);
}
