'use client';
import { useId, useState } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { matchLook } from '@/core/key/match-look';
import { clipAt } from '@/core/project/query';
import type { Project } from '@/core/project/model';
import type { Ticks } from '@/core/time/ticks';
import { Button } from '../../parts/Button';
import { inputLook } from '../../parts/fields';
import { tell, tellFault } from '../../shell/notices-store';
import { useEditor, useEditorStore, useSession } from '../store';

/** An instant at which a recording is in front of all other presenters; null where it never is. */
function seenAt({ lanes }: Project, footageId: string): Ticks | null {
  const presenters = lanes.filter(({ kind, off }) => kind === 'presenter' && !off);
  for (const [i, lane] of presenters.entries())
    for (const clip of lane.clips) {
      if (clip.footageId !== footageId) continue;
      const time = Math.round(clip.start + clip.duration / 2);
      if (!presenters.slice(0, i).some((before) => clipAt(before, time))) return time;
    }
  return null;
}

/** Brings the light and colours of one take to those of another. */
export function MatchTake({ footageId }: { footageId: string }) {
  const id = useId();
  const store = useEditorStore();
  const session = useSession();
  const [chosen, setChosen] = useState('');
  const [busy, setBusy] = useState(false);
  const takes = useEditor(
    useShallow((s) => [
      ...new Set(
        s.project.lanes
          .filter(({ kind }) => kind === 'presenter')
          .flatMap(({ clips }) => clips.map((clip) => clip.footageId)),
      ),
    ]),
  );
  const names = useEditor(
    useShallow((s) => takes.map((take) => s.sources.footage[take]?.name ?? '')),
  );
  const others = takes.flatMap((take, i) =>
    take === footageId ? [] : [[take, names[i]!] as const],
  );
  if (!takes.includes(footageId) || !others.length) return null;
  const other = others.some(([take]) => take === chosen) ? chosen : others[0]![0];
  const match = async () => {
    const { project, apply } = store.getState();
    const times = [seenAt(project, footageId), seenAt(project, other)];
    setBusy(true);
    const seen = times.every((time) => time !== null);
    const [own, theirs] = seen ? await session.colorsAt(times).catch(() => []) : [];
    setBusy(false);
    if (!own || !theirs)
      return tellFault(
        'Their colours can’t be told: both takes have to be seen on the timeline, with the presenter in them.',
      );
    apply('change-look', { footageId, change: matchLook(own, theirs) });
    tell('Light and colours brought to those of the other take. They can be changed by hand.');
  };
  return (
    <div className="flex items-center gap-1.5">
      <label htmlFor={id} className="text-ink-2">
        As in
      </label>
      <select
        id={id}
        value={other}
        onChange={(e) => setChosen(e.target.value)}
        className={`${inputLook} min-w-0 flex-1`}
      >
        {others.map(([take, name]) => (
          <option key={take} value={take}>
            {name}
          </option>
        ))}
      </select>
      <Button disabled={busy} onClick={() => void match()}>
        Match its light
      </Button>
    </div>
  );
}
