'use client';
import { useSyncExternalStore } from 'react';

const never = () => () => {};

/**
 * Whether the page can be worked with: what a server drew can be seen before it answers to presses.
 */
export const useHydrated = (): boolean =>
  useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
