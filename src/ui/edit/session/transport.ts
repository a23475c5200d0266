import { createStore, type StoreApi } from 'zustand';
import type { Ticks } from '@/core/time/ticks';

/**
 * Where playback is. A store of its own: it changes with each frame that is played, and what shows
 * the document must not be asked each time.
 */
export interface Transport {
  readonly playhead: Ticks;
  /** 1 plays with sound; 0 is paused; below 0 backwards. */
  readonly rate: number;
  readonly frames: { readonly dropped: number; readonly shown: number };
}

export const createTransport = (playhead: Ticks): StoreApi<Transport> =>
  createStore<Transport>()(() => ({
    playhead,
    rate: 0,
    frames: { dropped: 0, shown: 0 },
  }));
