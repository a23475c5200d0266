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
      // Space and arrows belong to a focused control.
      if (pressable(event.target) && /^(Space|Enter)$/.test(name)) return;
      if (event.target instanceof HTMLInputElement && /^(Space|Arrow|Home|End)/.test(event.key))
        return;
      const command = commands.find((c) => c.keys.includes(name));
      if (!command) return;
      event.preventDefault();
      command.run();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [store, player]);
}
