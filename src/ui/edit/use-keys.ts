'use client';
import { useEffect } from 'react';
import type { Player } from '@/preview/player';
import { editorCommands } from './commands';
import { useEditorStore } from './store';

/** The name of a key press, as commands list it. */
function nameOf(event: KeyboardEvent): string {
  const key =
    event.key === ' ' ? 'Space' : event.key.length === 1 ? event.key.toUpperCase() : event.key;
  // Shift is part of the character for signs such as ? and +.
  const shift = event.shiftKey && (key.length > 1 || /[A-Z]/.test(key));
  return `${event.ctrlKey || event.metaKey ? 'Mod+' : ''}${shift ? 'Shift+' : ''}${key}`;
}

const typing = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable ||
    /^(TEXTAREA|SELECT)$/.test(target.tagName) ||
    (target instanceof HTMLInputElement && !/^(range|checkbox|color)$/.test(target.type)));
const pressable = (target: EventTarget | null) =>
  target instanceof HTMLElement && !!target.closest('button, a, [role="tab"], summary');

/**
 * Knows whether the control that has the focus was reached by keys, as by Tab or an arrow within a
 * group.
 */
function reachedByKeys() {
  let walking = false;
  let there: EventTarget | null = null;
  const onKey = (event: KeyboardEvent) => {
    walking = event.type === 'keydown' && /^(Tab|Arrow|Home|End)/.test(event.key);
  };
  const onFocus = (event: FocusEvent) => {
    there = walking ? event.target : null;
  };
  const options = { capture: true };
  window.addEventListener('keydown', onKey, options);
  window.addEventListener('keyup', onKey, options);
  window.addEventListener('focusin', onFocus, options);
  return {
    by: (event: Event) => there !== null && event.target === there,
    end: () => {
      window.removeEventListener('keydown', onKey, options);
      window.removeEventListener('keyup', onKey, options);
      window.removeEventListener('focusin', onFocus, options);
    },
  };
}

/** Keys of the Edit place; those typed into a field stay there. */
export function useKeys(player: Player | null): void {
  const store = useEditorStore();
  useEffect(() => {
    const commands = editorCommands(store, player);
    const onKey = (event: KeyboardEvent) => {
      if (
        event.defaultPrevented ||
        event.altKey ||
        typing(event.target) ||
        document.querySelector('[role="dialog"]')
      )
        return;
      const name = nameOf(event);
      // Its field is about to take the keys.
      if (store.getState().typeInto && event.key.length === 1) return;
      // A control that was reached by keys has Space; one that was only pressed with the pointer
      // has done its part.
      if (pressable(event.target) && (name === 'Enter' || (name === 'Space' && reached.by(event))))
        return;
      if (event.target instanceof HTMLInputElement && /^(Space|Arrow|Home|End)/.test(event.key))
        return;
      const command = commands.find((c) => c.keys.includes(name));
      if (!command) return;
      event.preventDefault();
      if (name === 'Space' && pressable(event.target)) (event.target as HTMLElement).blur();
      command.run();
    };
    const reached = reachedByKeys();
    window.addEventListener('keydown', onKey);
    return () => {
      reached.end();
      window.removeEventListener('keydown', onKey);
    };
  }, [store, player]);
}
