'use client';
import { useEffect, useLayoutEffect, useRef } from 'react';
import { KeyStack, type KeyScope } from './key-stack';
import { isPress } from './press';

const stack = new KeyStack();
let listening = false;

function listen(): void {
  if (listening) return;
  listening = true;
  window.addEventListener('keydown', (event) => stack.handle(event, true), { capture: true });
  window.addEventListener('keydown', (event) => stack.handle(event, false));
}

/**
 * Takes keys as long as the component is there. It keeps its place among the scopes, whatever it
 * does with keys meanwhile.
 */
export function useKeyScope(
  onKey: KeyScope['onKey'],
  { modal = false, early = false }: Partial<Pick<KeyScope, 'modal' | 'early'>> = {},
): void {
  const latest = useRef(onKey);
  useLayoutEffect(() => {
    latest.current = onKey;
  });
  useEffect(() => {
    listen();
    return stack.push({ onKey: (event) => latest.current(event), modal, early });
  }, [modal, early]);
}

/**
 * Keeps keys from what lies below while something is open over it. What is within takes keys all
 * the same, since it comes on top: this is done before.
 *
 * @param onEscape closes it. A dialog of the library closes by itself while nothing lies over it; a
 * message does, which is not to be closed in its place.
 */
export function useKeysHeld(open: boolean, onEscape: () => void): void {
  const latest = useRef(onEscape);
  useLayoutEffect(() => {
    latest.current = onEscape;
  });
  useLayoutEffect(() => {
    if (!open) return;
    listen();
    const onKey = (event: KeyboardEvent) => {
      if (!isPress(event, 'Escape')) return;
      event.preventDefault();
      latest.current();
    };
    return stack.push({ onKey, modal: true, early: false });
  }, [open]);
}
