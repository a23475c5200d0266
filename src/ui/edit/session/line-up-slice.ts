import type { StoreApi } from 'zustand';
import { cancelAnalysis, readAnalysis, requestAnalysis } from '@/contract/analyses';
import { call } from '@/contract/call';
import type { Alignment } from '@/core/audio/align';
import { alignmentFault } from '@/core/audio/alignment-fault';
import { EditError } from '@/core/edit/error';
import { inLine, type InLine, type LineUpPart } from '@/core/edit/line-up';
import { lineUpTask, type LineUpTask } from '@/core/edit/line-up-task';
import { findClip } from '@/core/project/query';
import { footageOf } from '@/core/project/sources';
import { ticksToSeconds } from '@/core/time/ticks';
import { tell, tellFault } from '../../shell/notices-store';
import type { Change, EditorState, Get, LineUpSlice } from './state';

/** What is heard this far apart is heard as an echo, in seconds. */
const AS_ECHO = 0.01;
/** Clips of one recording need no comparison. */
const SAME: Alignment = { kind: 'aligned', offset: 0, ppm: 0, confidence: 1 };

/** Lining clips up by their sound: it is compared on the server. */
export function lineUpSlice(set: Change, get: Get): LineUpSlice {
  const cancel = (ids: readonly (string | null)[]) => {
    for (const id of ids) if (id) void call(cancelAnalysis, { params: { id } }).catch(tellFault);
  };
  return {
    liningUp: null,
    async lineUpBySound(ids) {
      const { project, sources } = get();
      const task = lineUpTask(project, sources, ids);
      if (typeof task === 'string') return tellFault(task);
      const mine = { task, analyses: null };
      set({ liningUp: mine });
      const footageOfClip = (id: string) => findClip(project, id)!.clip.footageId;
      const alignWith = footageOfClip(task.still);
      try {
        const analyses = await Promise.all(
          task.parts.map(async ({ hears }) => {
            const id = footageOfClip(hears);
            if (id === alignWith) return null;
            const body = { kind: 'alignment' as const, alignWith };
            return (await call(requestAnalysis, { params: { id }, body })).id;
          }),
        );
        // It was given up, or asked for anew, before the server had it.
        if (get().liningUp !== mine) return cancel(analyses);
        set({ liningUp: { task, analyses } });
      } catch (error) {
        if (get().liningUp === mine) set({ liningUp: null });
        tellFault(error);
      }
    },
    stopLiningUp() {
      const { liningUp } = get();
      set({ liningUp: null });
      cancel(liningUp?.analyses ?? []);
    },
    async takeLinedUp() {
      const { liningUp } = get();
      if (!liningUp?.analyses) return;
      set({ liningUp: null });
      const found = await Promise.all(
        liningUp.analyses.map(async (id) =>
          // The kind that was asked for says what it is.
          id === null ? SAME : (call(readAnalysis, { params: { id } }) as Promise<Alignment>),
        ),
      ).catch(tellFault);
      if (found) lineUp(get(), liningUp.task, found);
    },
  };
}

/** Moves what could be aligned, in one step, and says how, and what could not be. */
function lineUp(
  { project, sources, apply }: EditorState,
  { still, parts }: LineUpTask,
  found: readonly Alignment[],
): void {
  const first = findClip(project, still)?.clip;
  if (!first) return;
  const nameOf = (footageId: string) => footageOf(sources, footageId)?.name ?? 'A recording';
  const moves: LineUpPart[] = [];
  const told: string[] = [];
  parts.forEach(({ hears, clipIds }, i) => {
    const moved = findClip(project, hears)?.clip;
    const alignment = found[i]!;
    if (!moved) return;
    const name = nameOf(moved.footageId);
    if (alignment.kind !== 'aligned')
      return tellFault(alignmentFault(alignment, nameOf(first.footageId), name));
    try {
      const how = inLine(first, moved, alignment);
      moves.push(...clipIds.map((clipId) => ({ clipId, by: how.by, clock: how.clock })));
      told.push(
        `${name} lined up, ${Math.round(alignment.confidence * 100)} % agree${clocks(how)}`,
      );
    } catch (error) {
      if (!(error instanceof EditError)) throw error;
      tellFault(error);
    }
  });
  if (moves.length && apply('line-up-clips', { parts: moves })) tell(`${told.join('; ')}.`);
}

/** What is to be said of clocks that differ. */
function clocks({ clock, apart }: Pick<InLine, 'clock' | 'apart'>): string {
  const seconds = ticksToSeconds(apart);
  if (clock)
    return `, and its clock, ${Math.abs(Math.round(clock))} millionths off, is made up for`;
  if (seconds < AS_ECHO) return '';
  return `, but its clock is off: they are ${Math.round(seconds * 1000)} ms apart at the ends`;
}

/**
 * Takes over how recordings lie once it was found.
 *
 * @returns ends it
 */
export function followAlignments(store: StoreApi<EditorState>): () => void {
  return store.subscribe((now, before) => {
    if (now.liningUp === before.liningUp && now.analyses === before.analyses) return;
    const asked = now.liningUp?.analyses;
    if (!asked) return;
    const rows = asked.map((id) => now.analyses.find((one) => one.id === id));
    const failed = rows.find((row) => row?.status === 'failed');
    if (failed) {
      now.stopLiningUp();
      if (failed.error && failed.error !== 'Cancelled') tellFault(failed.error);
    } else if (rows.every((row, i) => asked[i] === null || row?.status === 'ready'))
      void now.takeLinedUp();
  });
}
