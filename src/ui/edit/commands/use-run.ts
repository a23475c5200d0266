'use client';
import { useEditorStore } from '../store';
import { editorCommands } from '.';

/** Runs a command by its id on what is selected. */
export function useRun(): (id: string) => void {
  const store = useEditorStore();
  return (id) =>
    editorCommands(store, null)
      .find((c) => c.id === id)
      ?.run();
}
