'use client';
import { Eye, EyeOff, Lock, LockOpen, Volume2, VolumeX } from 'lucide-react';
import { changeLane } from '@/core/edit/lanes';
import type { Lane } from '@/core/project/model';
import { isPictureLane } from '@/core/project/query';
import { useEditor } from '../store';

export function LaneHeader({ lane }: { lane: Lane }) {
  const edit = useEditor((s) => s.edit);
  const select = useEditor((s) => s.select);
  const selected = useEditor((s) => s.selection?.kind === 'lane' && s.selection.id === lane.id);
  const picture = isPictureLane(lane);
  const Off = picture ? (lane.off ? EyeOff : Eye) : lane.off ? VolumeX : Volume2;
  const offLabel = picture ? (lane.off ? 'Show' : 'Hide') : lane.off ? 'Unmute' : 'Mute';
  const Locked = lane.locked ? Lock : LockOpen;
  return (
    <>
      <button
        className={`min-w-0 flex-1 truncate text-left ${selected ? 'font-semibold text-action' : ''}`}
        onClick={() => select({ kind: 'lane', id: lane.id })}
      >
        {lane.name}
      </button>
      <button
        aria-label={`${offLabel} ${lane.name}`}
        title={`${offLabel} ${lane.name}`}
        aria-pressed={lane.off}
        className={lane.off ? 'text-caution' : 'text-ink-2'}
        onClick={() => edit(`${offLabel} lane`, (draft) => changeLane(draft, lane.id, { off: !lane.off }))}
      >
        <Off size={13} aria-hidden />
      </button>
      <button
        aria-label={`${lane.locked ? 'Unlock' : 'Lock'} ${lane.name}`}
        title={`${lane.locked ? 'Unlock' : 'Lock'} ${lane.name}`}
        aria-pressed={lane.locked}
        className={lane.locked ? 'text-caution' : 'text-ink-2 opacity-50'}
        onClick={() => edit('Lock lane', (draft) => changeLane(draft, lane.id, { locked: !lane.locked }))}
      >
        <Locked size={13} aria-hidden />
      </button>
    </>
  );
}
