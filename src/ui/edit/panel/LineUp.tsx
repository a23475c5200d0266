'use client';
import { AudioLines } from 'lucide-react';
import { Button } from '../../parts/Button';
import { useRun } from '../commands/use-run';
import { useEditor } from '../store';

/** Lines up the selected clips by what their recordings heard. */
export function LineUp() {
  const run = useRun();
  const asked = useEditor((s) => s.liningUp !== null);
  const stop = useEditor((s) => s.stopLiningUp);
  const progress = useEditor((s) => {
    const ids = (s.liningUp?.analyses ?? []).filter((id) => id !== null);
    const shares = ids.map((id) => {
      const ready = s.analyses.some((one) => one.id === id && one.status === 'ready');
      return ready ? 1 : (s.jobs.find((job) => job.subject === id)?.progress ?? 0);
    });
    return shares.reduce((sum, share) => sum + share, 0) / Math.max(1, shares.length);
  });
  if (!asked)
    return (
      <Button
        title="Moves them to where they show the same instant, by what their recordings heard"
        onClick={() => run('line-up')}
      >
        <AudioLines size={14} aria-hidden /> Line up by sound
      </Button>
    );
  return (
    <div className="grid gap-1">
      <progress
        className="h-1.5 w-full"
        value={progress}
        max={1}
        aria-label="How much of the sound was compared"
      />
      <Button onClick={stop}>Stop comparing ({Math.round(progress * 100)} %)</Button>
    </div>
  );
}
