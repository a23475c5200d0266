import type { StoreApi } from 'zustand';
import type { OpenedProject } from '@/contract/projects';
import type { MatteGrade } from '@/core/key/grade';
import type { TakeColors } from '@/core/key/match-look';
import type { Ticks } from '@/core/time/ticks';
import { Player } from '@/preview/player';
import { tellFault } from '../../shell/notices-store';
import { startAutosave, type Autosave } from '../autosave';
import { createEditor } from './create-editor';
import { followArrivals } from './arrivals-link';
import { followEditor } from './player-link';
import { followFindings } from './follow-slice';
import { followAlignments } from './line-up-slice';
import { followServer } from './server-link';
import type { EditorState } from './state';
import { remember } from './workspace-memory';

const FONTS_URL = '/fonts';

/**
 * An open project, from when a place opens it until that is left: its state, its saving, what the
 * server tells of it, and the player with its workers. All of it ends with `dispose`.
 */
export class EditorSession {
  readonly store: StoreApi<EditorState>;
  private readonly autosave: Autosave;
  private readonly endServer: () => void;
  private readonly endArrivals: () => void;
  private readonly endFindings: () => void;
  private shown: { canvas: HTMLCanvasElement; player: Player; end: () => void } | null = null;

  constructor(opened: OpenedProject) {
    this.store = createEditor(opened);
    this.autosave = startAutosave(this.store);
    this.endServer = followServer(this.store, (revision) => this.autosave.heardOf(revision));
    this.endArrivals = followArrivals(this.store);
    const ends = [followFindings(this.store), followAlignments(this.store)];
    this.endFindings = () => ends.forEach((end) => end());
    window.addEventListener('pagehide', this.remember);
  }

  /**
   * The player that draws on a canvas. A canvas can hand its drawing to a worker only once: the
   * same one again has the same player, another one ends it.
   */
  show(canvas: HTMLCanvasElement): Player {
    if (this.shown?.canvas === canvas) return this.shown.player;
    this.endPlayer();
    const { transport } = this.store.getState();
    const player = new Player(canvas, FONTS_URL, {
      onTime: (playhead) => transport.setState({ playhead }),
      onRate: (rate) => transport.setState({ rate }),
      onFrames: (dropped, shown) => transport.setState({ frames: { dropped, shown } }),
      onError: tellFault,
    });
    this.shown = { canvas, player, end: followEditor(player, this.store) };
    return player;
  }

  /** Grades the presenter's key at a time, which a worker of the Picture does. */
  gradeKey(time: Ticks): Promise<MatteGrade | null> {
    return this.shown?.player.gradeKey(time) ?? Promise.resolve(null);
  }

  /** The presenter's colours as recorded, at several times; null where they can't be told. */
  colorsAt(times: readonly Ticks[]): Promise<(TakeColors | null)[]> {
    return this.shown?.player.colorsAt(times) ?? Promise.resolve(times.map(() => null));
  }

  /** How much a callout differs from what lies beneath it; null where that is not known. */
  contrastBeneath(id: string): Promise<number | null> {
    return this.shown?.player.contrastBeneath(id) ?? Promise.resolve(null);
  }

  private readonly remember = (): void => remember(this.store);

  /** Moves the playhead, and the player with it; never before the start. */
  seek(time: Ticks): void {
    const playhead = Math.max(0, time);
    this.shown?.player.seek(playhead);
    this.store.getState().transport.setState({ playhead });
  }

  /** Ends all that goes on for it; what is not saved is saved first. */
  dispose(): void {
    this.remember();
    window.removeEventListener('pagehide', this.remember);
    this.endFindings();
    this.endArrivals();
    this.endServer();
    this.autosave.stop();
    this.store.getState().endPlanning();
    this.endPlayer();
  }

  private endPlayer(): void {
    this.shown?.end();
    this.shown?.player.close();
    this.shown = null;
  }
}
