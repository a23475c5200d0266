'use client';
import { useMemo } from 'react';
import type { Player } from '@/preview/player';
import { useChosenKeys } from '../../keys/chosen';
import { useEditorStore } from '../store';
import { editorCommands, type Command } from '.';

/** Every command by its id, with the keys it has now. */
export function useCommands(player: Player | null): ReadonlyMap<string, Command> {
  const store = useEditorStore();
  const chosen = useChosenKeys();
  return useMemo(
    () => new Map(editorCommands(store, player, chosen).map((c) => [c.id, c])),
    [store, player, chosen],
  );
}
