'use client';
import { useCallback, useEffect, useRef, useState } from 'react';
import { Player } from '@/preview/player';
import { tellFault } from '../../shell/notices-store';
import { useEditorStore } from '../store';

const FONTS_URL = '/fonts';

/** One player for the life of the canvas, kept in step with the editor. */
export function usePlayer(): {
  canvasRef: (canvas: HTMLCanvasElement | null) => void;
  player: Player | null;
} {
  const store = useEditorStore();
  const [player, setPlayer] = useState<Player | null>(null);
  const made = useRef<{ canvas: HTMLCanvasElement; player: Player } | null>(null);
  const canvasRef = useCallback(
    (canvas: HTMLCanvasElement | null) => {
      // A canvas can hand its drawing to a worker only once; the same element comes again after a
      // re-mount.
      if (!canvas || made.current?.canvas === canvas) return;
      made.current?.player.close();
      const created = new Player(canvas, FONTS_URL, {
        onTime: (playhead) => store.setState({ playhead }),
        onRate: (rate) => store.setState({ rate }),
        onFrames: (dropped, shown) => store.setState({ frames: { dropped, shown } }),
        onError: tellFault,
      });
      made.current = { canvas, player: created };
      setPlayer(created);
    },
    [store],
  );
  useEffect(() => {
    if (!player) return;
    const { project, sources, playhead, view } = store.getState();
    player.seek(playhead);
    player.setView(view);
    void player.setProject(project, sources);
    // Handing a long project to the workers takes a while: the timeline shows the edit first, and
    // of several edits only the last is handed over.
    let waiting = false;
    const handOver = () => {
      if (waiting) return;
      waiting = true;
      requestAnimationFrame(() =>
        setTimeout(() => {
          waiting = false;
          const latest = store.getState();
          void player.setProject(latest.project, latest.sources);
        }),
      );
    };
    return store.subscribe((now, before) => {
      if (now.project !== before.project || now.sources !== before.sources) handOver();
      if (now.view !== before.view) player.setView(now.view);
      // An undo may shorten the tutorial to before the playhead.
      if (now.project !== before.project && now.playhead !== before.playhead && !now.rate)
        player.seek(now.playhead);
    });
  }, [player, store]);
  return { canvasRef, player };
}

/** Moves the playhead, and the player with it; never before the start. */
export function useSeek(player: Player | null): (time: number) => void {
  const store = useEditorStore();
  return useCallback(
    (time: number) => {
      const playhead = Math.max(0, time);
      store.setState({ playhead });
      player?.seek(playhead);
    },
    [player, store],
  );
}
