'use client';
import { releaseProxy, wrap } from 'comlink';
import { useEffect, useState } from 'react';
import type { RescueApi, StrandedTake } from '@/capture/rescue-worker';
import { finishedTake, putTakeAway } from '@/capture/ended-take';
import { call } from '@/contract/call';
import { closeTake } from '@/contract/takes';
import { useEditor } from '../edit/store';
import { Button } from '../parts/Button';
import { tell, tellFault } from '../shell/notices-store';
import { useRecord } from './record-store';

const LOOK_MS = 3000;

async function withRescue<T>(
  work: (rescue: ReturnType<typeof wrap<RescueApi>>) => Promise<T>,
): Promise<T> {
  const worker = new Worker(new URL('../../capture/rescue-worker.ts', import.meta.url), {
    type: 'module',
  });
  const remote = wrap<RescueApi>(worker);
  try {
    return await work(remote);
  } finally {
    remote[releaseProxy]();
    worker.terminate();
  }
}

/**
 * Offers recordings that were broken off: by a crash, a closed tab or lid, or a server that went
 * away.
 */
export function RescueBanner() {
  const projectId = useEditor((s) => s.id);
  const takes = useEditor((s) => s.takes);
  const phase = useRecord((s) => s.phase);
  const takeId = useRecord((s) => s.takeId);
  const set = useRecord((s) => s.set);
  const send = useRecord((s) => s.send);
  const [stranded, setStranded] = useState<readonly StrandedTake[]>([]);
  const [busy, setBusy] = useState(false);
  const idle = phase === 'ready';
  useEffect(() => {
    if (!idle) return;
    let gone = false;
    const look = () =>
      withRescue((r) => r.find(projectId)).then(
        (found) => !gone && setStranded(found),
        () => undefined,
      );
    void look();
    const timer = setInterval(() => void look(), LOOK_MS);
    return () => {
      gone = true;
      clearInterval(timer);
    };
  }, [projectId, idle]);
  if (!idle || busy) return busy ? <Bar>Rescuing the recording…</Bar> : <div />;
  const broken = takes.find((t) => t.status === 'recording' && !t.live && t.id !== takeId);
  const local = stranded.find(
    (s) => !takes.some((t) => t.id === s.takeId && (t.live || t.status !== 'recording')),
  );
  const id = broken?.id ?? local?.takeId;
  const other = takes.some((t) => t.live && t.id !== takeId);
  if (!id) return other ? <Bar>Another tab is recording for this project.</Bar> : <div />;
  const rescue = async (keep: boolean) => {
    setBusy(true);
    try {
      if (keep) await withRescue((r) => r.send(id));
      else await withRescue((r) => r.forget(id));
      const take = await call(closeTake, { params: { id }, body: { reason: 'crashed' } }).catch(
        (error: unknown) => {
          // A take that the server never heard of is forgotten by forgetting it here.
          if (keep) throw error;
          return null;
        },
      );
      if (keep && take) {
        set({ stepId: take.stepId ?? null });
        send({ type: 'show', take: await finishedTake(id) });
      } else {
        if (take) await putTakeAway(id);
        tell(
          'The broken-off recording was put away. What the server has of it stays in the drawer of takes.',
        );
      }
    } catch (error) {
      tellFault(error);
    } finally {
      setBusy(false);
    }
  };
  return (
    <Bar>
      <span>
        A recording was broken off{broken && ` in take ${broken.number}`}. What was written until
        then can be rescued.
      </span>
      <Button look="primary" onClick={() => void rescue(true)}>
        Rescue it
      </Button>
      <Button onClick={() => void rescue(false)}>Dismiss</Button>
    </Bar>
  );
}

const Bar = ({ children }: { children: React.ReactNode }) => (
  <div
    role="alert"
    className="flex items-center gap-3 border-b border-caution bg-sheet px-4 py-1.5"
  >
    {children}
  </div>
);
