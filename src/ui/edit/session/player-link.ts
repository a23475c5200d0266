import type { StoreApi } from 'zustand';
import type { PlanView } from '@/core/frame/plan-frame';
import type { Player } from '@/preview/player';
import type { EditorState } from './state';

/**
 * Keeps a player in step with the document and with how it is to be shown.
 *
 * @returns ends it
 */
export function followEditor(player: Player, store: StoreApi<EditorState>): () => void {
  const { project, sources, transport } = store.getState();
  player.seek(transport.getState().playhead);
  player.setView(viewOf(store.getState()));
  void player.setProject(project, sources);
  // Handing a long project to the workers takes a while: the timeline shows the edit first, and of
  // several edits only the last is handed over.
  let waiting = false;
  let ended = false;
  const handOver = () => {
    if (waiting) return;
    waiting = true;
    requestAnimationFrame(() =>
      setTimeout(() => {
        waiting = false;
        const latest = store.getState();
        if (!ended) void player.setProject(latest.project, latest.sources);
      }),
    );
  };
  const ends = [
    store.subscribe((now, before) => {
      if (now.project !== before.project || now.sources !== before.sources) handOver();
      if (now.view !== before.view || now.softText !== before.softText) player.setView(viewOf(now));
    }),
    // An undo may shorten the tutorial to before the playhead, which then moves by itself.
    transport.subscribe((now, before) => {
      if (now.playhead !== before.playhead && !now.rate && now.playhead !== player.at)
        player.seek(now.playhead);
    }),
  ];
  return () => {
    ended = true;
    for (const end of ends) end();
  };
}

/** How the picture is to be shown. */
const viewOf = ({ view, softText }: EditorState): PlanView => ({ ...view, soft: softText });
