'use client';
import { isClearing } from '@/core/layout/clearing';
import { projectDuration } from '@/core/project/query';
import { Button } from '../../parts/Button';
import { useRun } from '../commands/use-run';
import { useEditor } from '../store';

/** Has the presenter get out of the way of what is shown, or stay where they are. */
export function KeepClear() {
  const run = useRun();
  const clearing = useEditor((s) => s.clearing);
  const apply = useEditor((s) => s.apply);
  const end = useEditor((s) => projectDuration(s.project));
  const moves = useEditor(
    (s) => s.project.layouts.filter((span) => isClearing(span, { start: 0, end })).length,
  );
  return (
    <fieldset className="grid gap-1.5 border-t border-line pt-2">
      <legend className="font-semibold">Out of the way</legend>
      <p className="text-xs text-ink-2">
        {moves
          ? `They stand elsewhere ${moves === 1 ? 'once' : `${moves} times`}, so that text and what happens can be seen. Each is a layout on the timeline.`
          : 'They can stand in another corner while text or what happens would lie behind them; seldom, and when nothing else moves.'}
      </p>
      <span className="flex flex-wrap gap-1">
        <Button disabled={clearing !== null} onClick={() => run('keep-clear')}>
          {clearing === null
            ? 'Keep clear of what is shown'
            : `Looking for room, ${Math.round(clearing * 100)} %`}
        </Button>
        {moves > 0 && (
          <Button onClick={() => apply('keep-clear', { start: 0, end, spans: [] })}>
            Stay in the corner
          </Button>
        )}
      </span>
    </fieldset>
  );
}
