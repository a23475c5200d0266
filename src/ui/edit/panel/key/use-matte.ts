import { useState } from 'react';
import { cancelAnalysis, requestAnalysis, type MatteTask } from '@/contract/analyses';
import { call } from '@/contract/call';
import { matteOf } from '@/core/key/matte-of';
import type { FootageKey } from '@/core/project/model';
import { tellFault } from '../../../shell/notices-store';
import { useEditor } from '../../store';

/** How far the matte is that a key needs. */
export interface MatteState {
  readonly state: 'none' | 'making' | 'ready' | 'failed';
  /** How far it is made, 0 to 1. */
  readonly progress: number;
  /** What it says of itself, or why there is none. */
  readonly said: string | null;
  readonly make: (task: MatteTask) => void;
  readonly stop: () => void;
}

/** Asks for the matte of a recording; what goes wrong is told. */
export const askForMatte = async (footageId: string, task: MatteTask): Promise<void> => {
  const body = { kind: 'matte', matte: task } as const;
  await call(requestAnalysis, { params: { id: footageId }, body }).catch(tellFault);
};

/** The matte that a recording's key needs: whether it is there, and its making. */
export function useMatte(key: Pick<FootageKey, 'footageId' | 'method' | 'shot'>): MatteState {
  const { footageId } = key;
  const [asking, setAsking] = useState(false);
  const made = useEditor((s) => matteOf(s.sources, key));
  const row = useEditor((s) => {
    const rows = s.analyses.filter((a) => a.kind === 'matte' && a.footageId === footageId);
    return rows.find(({ id }) => id === made?.id) ?? rows.at(-1) ?? null;
  });
  const waiting = row?.status === 'waiting';
  const progress = useEditor((s) => s.jobs.find((j) => j.subject === row?.id)?.progress ?? 0);
  const make = (task: MatteTask) => {
    setAsking(true);
    void askForMatte(footageId, task).finally(() => setAsking(false));
  };
  const stop = () => {
    if (row) void call(cancelAnalysis, { params: { id: row.id } }).catch(tellFault);
  };
  const failed = row?.status === 'failed' && row.error !== 'Cancelled';
  const state = made ? 'ready' : waiting || asking ? 'making' : failed ? 'failed' : 'none';
  const said = made ? sayOf(row?.summary ?? {}) : failed ? (row.error ?? null) : null;
  return { state, progress, said, make, stop };
}

/** What is to be known of a matte that was made; null where all is well. */
function sayOf({ seen, behind }: Readonly<Record<string, unknown>>): string | null {
  if (typeof seen === 'number' && seen < 0.02)
    return 'Nobody was found in this recording. Key it by the colour of a wall, or show it as it is.';
  if (typeof seen === 'number' && seen < 0.9)
    return `Somebody is found in ${Math.round(seen * 100)} % of the time; the rest is clear.`;
  if (typeof behind === 'number' && behind < 0.25)
    return 'The camera moves, or hardly any of the background is seen: outlines are less exact.';
  return null;
}
