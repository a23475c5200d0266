import type { StoreApi } from 'zustand';
import { findClip, clipAt, projectDuration } from '@/core/project/query';
import { frameDuration, snapToFrame, type Ticks } from '@/core/time/ticks';
import type { Clip } from '@/core/project/model';
import { frontmost, sceneAt, screenOf, type ScreenView } from '@/core/scene/scene';
import type { Player } from '@/preview/player';
import type { Keyed } from '../../keys/chosen';
import { tellFault } from '../../shell/notices-store';
import type { Dialogs, EditorState } from '../session/state';

export interface Command extends Keyed {
  readonly run: () => void;
}

/** What commands work with. */
export class CommandContext {
  constructor(
    readonly store: StoreApi<EditorState>,
    readonly player: Player | null,
  ) {}

  get state(): EditorState {
    return this.store.getState();
  }

  /** Opens a dialog. */
  open(dialog: Dialogs): () => void {
    return () => this.store.setState({ dialog });
  }

  /** Length of a frame. */
  get frame(): Ticks {
    return frameDuration(this.state.project.canvas.frameRate);
  }

  get playhead(): Ticks {
    return this.state.transport.getState().playhead;
  }

  /** The rate of playing; 0 is paused. */
  get rate(): number {
    return this.state.transport.getState().rate;
  }

  /** The playhead on a frame. */
  get here(): Ticks {
    return snapToFrame(this.playhead, this.state.project.canvas.frameRate);
  }

  seek(time: Ticks): void {
    const playhead = Math.max(0, Math.min(time, projectDuration(this.state.project)));
    this.state.transport.setState({ playhead });
    this.player?.seek(playhead);
  }

  /** The frontmost screen recording at the playhead, as it is seen; says so where there is none. */
  screenHere(): ScreenView | null {
    const { project, sources } = this.state;
    const scene = sceneAt(project, sources, this.playhead);
    const found = frontmost(scene, 'screen');
    if (found) return screenOf(scene, found);
    tellFault('There is no screen recording under the playhead.');
    return null;
  }

  /** The selected clip, or the one under the playhead on the frontmost unlocked lane. */
  get clipHere(): Clip | null {
    const { playhead } = this;
    const { selection, project } = this.state;
    if (selection?.kind === 'clip') return findClip(project, selection.id)?.clip ?? null;
    for (const lane of project.lanes) {
      const clip = lane.locked ? null : clipAt(lane, playhead);
      if (clip) return clip;
    }
    return null;
  }
}
