'use client';
import { useEffect, useRef } from 'react';
import type { Player } from '@/preview/player';
import { isPress, isPressable, isTyping } from '../keys/press';
import { useKeyScope } from '../keys/use-key-scope';
import { useCommands } from './commands/use-commands';
import { useEditorStore } from './store';

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
  const commands = useCommands(player);
  const reached = useRef<ReturnType<typeof reachedByKeys> | null>(null);
  useEffect(() => {
    const watch = (reached.current = reachedByKeys());
    return () => watch.end();
  }, []);
  useKeyScope((event) => {
    const command = [...commands.values()].find((c) => c.keys.some((name) => isPress(event, name)));
    // The list of all commands is reached from fields too; its key writes nothing.
    const list = command?.id === 'commands' && (event.ctrlKey || event.metaKey);
    if (isTyping(event) && !list) return;
    // Its field is about to take the keys.
    if (store.getState().typeInto && event.key.length === 1) return;
    const space = isPress(event, 'Space');
    // A control that was reached by keys has Space; one that was only pressed with the pointer has
    // done its part.
    if (isPressable(event) && (isPress(event, 'Enter') || (space && reached.current?.by(event))))
      return;
    if (event.target instanceof HTMLInputElement && /^( |Arrow|Home|End)/.test(event.key)) return;
    if (!command) return;
    event.preventDefault();
    if (space && isPressable(event)) (event.target as HTMLElement).blur();
    command.run();
  });
}
