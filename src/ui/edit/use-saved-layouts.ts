'use client';
import { useEffect } from 'react';
import { useSavedPresets } from '../presets/use-saved-presets';
import { useEditor } from './store';

/** Tells the editor which layouts were saved, so that commands and keys can set them. */
export function useSavedLayouts(): void {
  const set = useEditor((s) => s.set);
  const { data } = useSavedPresets('layout');
  useEffect(() => {
    if (data) set({ savedLayouts: data });
  }, [data, set]);
}
