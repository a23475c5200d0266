'use client';
import { useEffect, useLayoutEffect, useRef } from 'react';
import { KeyStack, type KeyScope } from './key-stack';

const stack = new KeyStack();
let listening = false;

function listen(): void {
  if (listening) return;
  listening = true;
  window.addEventListener('keydown', (event) => stack.handle(event, true), { capture: true });
  window.addEventListener('keydown', (event) => stack.handle(event, false));
}

const NOTHING = () => {};

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
 */
export function useKeysHeld(open: boolean): void {
  useLayoutEffect(() => {
    if (!open) return;
    listen();
    return stack.push({ onKey: NOTHING, modal: true, early: false });
  }, [open]);
}
