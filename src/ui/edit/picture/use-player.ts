'use client';
import { useCallback, useState } from 'react';
import type { Player } from '@/preview/player';
import { useSession } from '../store';

/** The player of the open project, once there is a canvas for it. */
export function usePlayer(): {
  canvasRef: (canvas: HTMLCanvasElement | null) => void;
  player: Player | null;
} {
  const session = useSession();
  const [player, setPlayer] = useState<Player | null>(null);
  const canvasRef = useCallback(
    (canvas: HTMLCanvasElement | null) => {
      if (canvas) setPlayer(session.show(canvas));
    },
    [session],
  );
  return { canvasRef, player };
}

/** Moves the playhead, and the player with it; never before the start. */
export function useSeek(): (time: number) => void {
  const session = useSession();
  return useCallback((time: number) => session.seek(time), [session]);
}
