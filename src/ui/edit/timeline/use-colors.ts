'use client';
import { useMemo } from 'react';
import type { LaneKind } from '@/core/project/model';
import { useLamp } from '../../shell/LampToggle';

/** Names of colours, as the style sheet has them. */
export type ColorName = 'sheet' | 'action' | `lane-${LaneKind | 'layout' | 'pointer' | 'callouts'}`;

/**
 * Colours of the look for what is drawn on a canvas. Read once for each look: asking the browser
 * for a style while the page changes makes it lay out all that changed.
 */
export function useColors(): (name: ColorName) => string {
  const lamp = useLamp();
  return useMemo(() => {
    const look =
      typeof document === 'undefined' ? null : getComputedStyle(document.documentElement);
    const read = new Map<string, string>();
    return (name) => {
      const known = read.get(name) ?? look?.getPropertyValue(`--${name}`) ?? '';
      read.set(name, known);
      return known;
    };
    // The style sheet has other colours when the lamp is off.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [lamp]);
}
