import { nanoid } from 'nanoid';
import type { StoreApi } from 'zustand';
import { finishedTake, putTakeAway } from '@/capture/ended-take';
import { openMicrophone, type OpenSource } from '@/capture/open';
import { Recorder } from '@/capture/recorder';
import { call } from '@/contract/call';
import { keepTake } from '@/contract/takes';
import { applyEdit } from '@/core/edit/apply';
import { clearRange } from '@/core/edit/range';
import { retakeLane } from '@/core/edit/retake';
import { projectDuration } from '@/core/project/query';
import type { Range } from '@/core/time/ranges';
import { secondsToTicks, ticksToSeconds } from '@/core/time/ticks';
import type { Player } from '@/preview/player';
import type { EditorState } from '../session/state';

/** The Picture runs this long before the range, so that one can come in on time. */
const LEAD = secondsToTicks(2);
const TAIL_MS = 350;
/** A retake that the playhead never ends is ended after the range's length and so much more. */
const PATIENCE_MS = 20_000;

export type RetakePhase = 'lead' | 'recording' | 'saving';

/** One retake: plays the Picture without the old words and records the microphone meanwhile. */
export class RetakeSession {
  private recorder: Recorder | null = null;
  private source: OpenSource | null = null;
  /** Page time less timeline time, in ms, at each look: their middle says when the range began. */
  private readonly offsets: number[] = [];
  private stopped: (() => void) | null = null;
  private cancelled = false;

  constructor(
    private readonly store: StoreApi<EditorState>,
    private readonly player: Player,
    private readonly range: Range,
    private readonly onPhase: (phase: RetakePhase) => void,
  ) {}

  /** Records, places and answers the new clip's id; null when it was cancelled. */
  async run(microphone: string): Promise<string | null> {
    const { store, player, range } = this;
    const { project, sources } = store.getState();
    retakeLane(project, range);
    try {
      this.source = await openMicrophone(microphone, 'good', false);
      this.recorder = new Recorder(
        () => {},
        () => this.stop(),
      );
      const { track, label } = this.source;
      await this.recorder.arm([{ name: 'voice', track, frameRate: 0 }]);
      const quiet = applyEdit(project, (draft) =>
        clearRange([retakeLane(draft, range)], range, nanoid),
      ).project;
      await player.setProject(quiet, sources);
      const takeId = nanoid();
      const began = await this.recorder.begin({
        projectId: store.getState().id,
        takeId,
        stepId: null,
        kind: 'voice',
        setup: {
          tracks: [{ name: 'voice', label: label.slice(0, 200) }],
          area: null,
          gain: 0,
          camera: { mirror: false, brightness: 0, contrast: 1, area: null },
          hold: null,
          layout: 'corner',
        },
      });
      await this.play();
      this.onPhase('saving');
      const told = await this.recorder.finish('stopped');
      if (this.cancelled) {
        if (told) await putTakeAway(takeId);
        return null;
      }
      if (!told)
        throw new Error(
          'The server does not answer. The words are kept in this browser and can be rescued in Record.',
        );
      return await this.place(takeId, began);
    } finally {
      await player.play(0);
      this.source?.stop();
      this.recorder?.dispose();
      const now = store.getState();
      await player.setProject(now.project, now.sources);
    }
  }

  /** Ends the recording here; what was said so far is kept. */
  stop(): void {
    this.stopped?.();
  }

  cancel(): void {
    this.cancelled = true;
    this.stop();
  }

  /** Plays from a little before the range to its end, and notes when each instant was heard. */
  private async play(): Promise<void> {
    const { store, player, range } = this;
    const from = Math.max(0, range.start - LEAD);
    store.getState().transport.setState({ playhead: from });
    player.seek(from);
    this.onPhase('lead');
    const done = new Promise<void>((resolve) => {
      let phase: RetakePhase = 'lead';
      let tail: ReturnType<typeof setTimeout> | null = null;
      const limit = setTimeout(
        () => finish(),
        ticksToSeconds(range.end - from) * 1000 + PATIENCE_MS,
      );
      const unsubscribe = store.getState().transport.subscribe((now, before) => {
        if (now.playhead === before.playhead || now.rate !== 1) {
          // It may end by itself at the end of the tutorial.
          if (now.rate === 0 && before.rate === 1) finish();
          return;
        }
        this.offsets.push(performance.now() - ticksToSeconds(now.playhead) * 1000);
        if (phase === 'lead' && now.playhead >= range.start) this.onPhase((phase = 'recording'));
        const end = Math.min(range.end, projectDuration(store.getState().project));
        if (now.playhead >= end) tail ??= setTimeout(finish, TAIL_MS);
      });
      const finish = () => {
        clearTimeout(limit);
        if (tail) clearTimeout(tail);
        unsubscribe();
        resolve();
      };
      this.stopped = finish;
    });
    await player.play(1);
    await done;
    await player.play(0);
  }

  private async place(takeId: string, began: number): Promise<string> {
    const { store, range } = this;
    await finishedTake(takeId);
    const { tracks } = await call(keepTake, { params: { id: takeId } });
    const voice = tracks.find((t) => t.name === 'voice');
    if (!voice)
      throw new Error('The microphone gave no sound. Check it in Record, then try again.');
    if (!this.offsets.length)
      throw new Error(
        'The Picture did not play, so the words can’t be placed. They are in the drawer of takes in Record.',
      );
    const middle = [...this.offsets].sort((a, b) => a - b)[this.offsets.length >> 1]!;
    const heard = middle + ticksToSeconds(range.start) * 1000 - began;
    const source = secondsToTicks(heard / 1000) - voice.offset;
    const done = store.getState().apply('place-retake', {
      ...range,
      footageId: voice.footageId,
      source,
      available: voice.duration,
    });
    if (!done)
      throw new Error('The words could not be placed. They are in the drawer of takes in Record.');
    return done.result;
  }
}
