'use client';
import { useId, useState } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { matchLook } from '@/core/key/match-look';
import { presentedAt, presenterTakes } from '@/core/project/query';
import { Button } from '../../parts/Button';
import { inputLook } from '../../parts/fields';
import { tell, tellFault } from '../../shell/notices-store';
import { useEditor, useEditorStore, useSession } from '../store';

/** Brings the light and colours of one take to those of another. */
export function MatchTake({ footageId }: { footageId: string }) {
  const id = useId();
  const store = useEditorStore();
  const session = useSession();
  const [chosen, setChosen] = useState('');
  const [busy, setBusy] = useState(false);
  const takes = useEditor(useShallow((s) => [...presenterTakes(s.project)]));
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
    const times = [presentedAt(project, footageId), presentedAt(project, other)];
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
