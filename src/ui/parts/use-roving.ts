'use client';
import { useLayoutEffect, useRef, type KeyboardEvent, type FocusEvent } from 'react';

const STOPS = 'button:not(:disabled), input:not(:disabled), [role="button"]';

/**
 * Makes the controls of a bar one stop of the Tab key: the arrows go from one to the next, Home and
 * End to the first and last (the pattern of a toolbar in the ARIA Authoring Practices).
 */
export function useRoving<E extends HTMLElement>() {
  const bar = useRef<E>(null);
  const current = useRef<Element | null>(null);
  const stops = () => [...(bar.current?.querySelectorAll<HTMLElement>(STOPS) ?? [])];
  const settle = () => {
    const all = stops();
    const one = all.find((stop) => stop === current.current) ?? all[0];
    for (const stop of all) stop.tabIndex = stop === one ? 0 : -1;
  };
  // What is drawn anew may have other controls.
  useLayoutEffect(settle);
  const onFocus = (event: FocusEvent) => {
    current.current = event.target;
    settle();
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.altKey || event.ctrlKey || event.metaKey || event.shiftKey) return;
    const all = stops();
    const at = all.indexOf(event.target as HTMLElement);
    if (at < 0) return;
    const to = {
      ...{ ArrowRight: (at + 1) % all.length, ArrowLeft: (at - 1 + all.length) % all.length },
      ...{ Home: 0, End: all.length - 1 },
    }[event.key];
    if (to === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    all[to]!.focus();
  };
  return { ref: bar, onFocus, onKeyDown };
}
