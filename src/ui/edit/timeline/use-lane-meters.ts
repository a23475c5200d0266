'use client';
import { useEffect, type RefObject } from 'react';
import type { Player } from '@/preview/player';
import { METER_FLOOR_DB, meterColor, meterShare } from '../meter';
import { useTransport } from '../store';

/**
 * Moves the meters of the lanes (`data-lane-meter`) while the project plays, past React: they
 * change with each picture of the screen.
 */
export function useLaneMeters(player: Player | null, within: RefObject<HTMLElement | null>): void {
  const playing = useTransport((t) => t.rate === 1);
  useEffect(() => {
    const meters = within.current?.querySelectorAll<HTMLElement>('[data-lane-meter]') ?? [];
    if (!player || !playing || !meters.length) return;
    const held = new Map<string, number>();
    let frame = 0;
    const show = (meter: HTMLElement, level: number) => {
      meter.style.transform = `scaleX(${meterShare(level)})`;
      meter.style.backgroundColor = meterColor(level);
    };
    const draw = () => {
      for (const meter of meters) {
        const id = meter.dataset.laneMeter!;
        const level = Math.max(player.laneLevel(id), (held.get(id) ?? METER_FLOOR_DB) - 0.7);
        held.set(id, level);
        show(meter, level);
      }
      frame = requestAnimationFrame(draw);
    };
    draw();
    return () => {
      cancelAnimationFrame(frame);
      for (const meter of meters) show(meter, METER_FLOOR_DB);
    };
  }, [player, playing, within]);
}
