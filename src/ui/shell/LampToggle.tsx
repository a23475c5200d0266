'use client';
import { Lamp, LampDesk } from 'lucide-react';
import { useSyncExternalStore } from 'react';
import { IconButton } from '../parts/IconButton';

const listeners = new Set<() => void>();
const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};
const isOff = () => document.documentElement.dataset.lamp === 'off';

/** Whether the look is the dark one, for what is not drawn by style sheets. */
export const useLamp = (): boolean => useSyncExternalStore(subscribe, isOff, () => false);

/** Switches between the light and the dark look. */
export function LampToggle() {
  const off = useLamp();
  const toggle = () => {
    const next = off ? 'on' : 'off';
    document.documentElement.dataset.lamp = next;
    localStorage.setItem('lamp', next);
    listeners.forEach((listener) => listener());
  };
  return (
    <IconButton
      icon={off ? LampDesk : Lamp}
      label={off ? 'Lamp on (light look)' : 'Lamp off (dark look)'}
      onClick={toggle}
    />
  );
}
