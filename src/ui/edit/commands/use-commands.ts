'use client';
import { useMemo } from 'react';
import type { Player } from '@/preview/player';
import { useChosenKeys } from '../../keys/chosen';
import { useEditor, useEditorStore } from '../store';
import { editorCommands, type Command } from '.';

/**
 * Every command by its id, with the keys it has now; layouts that were saved, or suit the picture,
 * have one each.
 */
export function useCommands(player: Player | null): ReadonlyMap<string, Command> {
  const store = useEditorStore();
  const chosen = useChosenKeys();
  const saved = useEditor((s) => s.savedLayouts);
  const canvas = useEditor((s) => s.project.canvas);
  return useMemo(
    () => new Map(editorCommands(store, player, chosen).map((c) => [c.id, c])),
    // Not read here, but what commands there are depends on them.
    [store, player, chosen, saved, canvas], // oxlint-disable-line react/exhaustive-deps
  );
}
