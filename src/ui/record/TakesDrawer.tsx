'use client';
import { CircleCheck, Play, RotateCcw, Trash2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import { call } from '@/contract/call';
import { changeTake, type TakeStatus, type TakeView } from '@/contract/takes';
import { usedFootage } from '@/core/project/query';
import { formatClock } from '@/core/time/timecode';
import { useEditor, useEditorStore } from '../edit/store';
import { Button } from '../parts/Button';
import { IconButton } from '../parts/IconButton';
import { tellFault } from '../shell/notices-store';
import { keepAndPlace } from './place-take';
import { useRecord } from './record-store';

const STATES: Readonly<Record<TakeStatus, string>> = {
  recording: 'broken off',
  closing: 'being finished',
  stopped: 'not decided',
  kept: 'kept, not in use',
  discarded: 'discarded',
};
const NAMES = {
  screen: 'screen',
  camera: 'camera',
  voice: 'voice',
  computer: 'computer sound',
} as const;

/** All takes of the step at hand, kept, replaced or put away: none is ever lost. */
export function TakesDrawer() {
  const editor = useEditorStore();
  const takes = useEditor((s) => s.takes);
  const lanes = useEditor((s) => s.project.lanes);
  const steps = useEditor((s) => s.project.steps);
  const stepId = useRecord((s) => s.stepId);
  const idle = useRecord((s) => s.phase === 'ready' || s.phase === 'review');
  const review = useRecord((s) => s.review);
  const send = useRecord((s) => s.send);
  const [all, setAll] = useState(false);
  const [busy, setBusy] = useState(false);
  const used = useMemo(() => usedFootage(lanes), [lanes]);
  const known = new Set(steps.map((s) => s.id));
  // A take whose step is gone belongs to none.
  const shown = takes.filter(
    (t) =>
      !t.live &&
      t.status !== 'recording' &&
      (all || (t.stepId && known.has(t.stepId) ? t.stepId : null) === stepId),
  );
  const inUse = (take: TakeView) => Object.values(take.footage).some((id) => used.has(id));
  const run = (work: () => Promise<unknown>) => {
    setBusy(true);
    void work()
      .catch(tellFault)
      .finally(() => setBusy(false));
  };
  const stateOf = (take: TakeView) => (inUse(take) ? 'in use' : STATES[take.status]);
  return (
    <section
      aria-label="Takes"
      className="grid min-h-0 grid-rows-[auto_minmax(0,1fr)] border-t border-line bg-paper"
    >
      <div className="flex items-center justify-between px-3 py-1">
        <h2 className="font-semibold">
          Takes{stepId && !all ? ` of step ${steps.findIndex((s) => s.id === stepId) + 1}` : ''}
        </h2>
        <label className="flex items-center gap-1.5 text-xs">
          <input
            type="checkbox"
            checked={all}
            onChange={(e) => setAll(e.target.checked)}
            className="accent-(--action)"
          />{' '}
          of all steps
        </label>
      </div>
      <ul className="min-h-0 overflow-auto border-t border-line/60">
        {!shown.length && (
          <li className="px-3 py-2 text-xs text-ink-2">
            No take yet. Short takes are easy to do again; the old ones stay here.
          </li>
        )}
        {[...shown].reverse().map((take) => (
          <li
            key={take.id}
            className={`flex items-center gap-2 border-b border-line/60 px-3 py-0.5 ${review?.id === take.id ? 'bg-sheet' : ''} ${take.status === 'discarded' ? 'opacity-60' : ''}`}
            data-take={take.id}
          >
            <span className="numbers w-14 font-semibold">Take {take.number}</span>
            {all && take.stepId && (
              <span className="text-xs text-ink-2">
                step {steps.findIndex((s) => s.id === take.stepId) + 1 || '?'}
              </span>
            )}
            <span className="numbers w-10 text-xs">{formatClock(take.seconds)}</span>
            <span className="min-w-0 flex-1 truncate text-xs text-ink-2">
              {take.setup.tracks.map((t) => NAMES[t.name]).join(', ')}
            </span>
            <span
              className={`flex items-center gap-1 text-xs ${inUse(take) ? 'text-good' : 'text-ink-2'}`}
            >
              {inUse(take) && <CircleCheck size={12} aria-hidden />}
              {stateOf(take)}
            </span>
            <IconButton
              icon={Play}
              label={`Play take ${take.number}`}
              disabled={!idle || take.status === 'closing'}
              onClick={() => send({ type: 'show', take })}
            />
            {!inUse(take) && take.status !== 'discarded' && (
              <Button
                disabled={!idle || busy || take.status === 'closing'}
                onClick={() => run(() => keepAndPlace(editor, take.id))}
              >
                Use this one
              </Button>
            )}
            {take.status === 'discarded' ? (
              <IconButton
                icon={RotateCcw}
                label={`Bring take ${take.number} back`}
                onClick={() =>
                  run(() =>
                    call(changeTake, { params: { id: take.id }, body: { discarded: false } }),
                  )
                }
              />
            ) : (
              <IconButton
                icon={Trash2}
                label={`Discard take ${take.number}`}
                disabled={!idle || inUse(take) || take.status === 'closing'}
                onClick={() =>
                  run(() =>
                    call(changeTake, { params: { id: take.id }, body: { discarded: true } }),
                  )
                }
              />
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
