'use client';
import { LoaderCircle } from 'lucide-react';
import { useEffect, useState } from 'react';
import { LAYOUTS } from '@/core/layout/built-in';
import type { SuggestedLayout } from '@/core/staging/suggest';
import { secondsToTicks } from '@/core/time/ticks';
import { Button } from '../../parts/Button';
import { useEditor, useSession } from '../store';
import { Heading } from './Heading';

/** Screen and presenter go over to a layout that was taken in so many seconds. */
const GLIDE = 0.5;

/** Layouts that suit the steps better than those that they have, each to take or to leave. */
export function SuggestedLayouts() {
  const session = useSession();
  const project = useEditor((s) => s.project);
  const sources = useEditor((s) => s.sources);
  const suggest = useEditor((s) => s.suggestLayouts);
  const apply = useEditor((s) => s.apply);
  const [found, setFound] = useState<readonly SuggestedLayout[] | null>(null);
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  useEffect(() => {
    let wanted = true;
    void suggest().then((all) => {
      if (wanted && all) setFound(all);
    });
    return () => {
      wanted = false;
    };
  }, [suggest, project, sources]);
  const open = found?.filter(({ stepId, kind }) => !left.has(`${stepId} ${kind}`)) ?? [];
  const take = (some: readonly SuggestedLayout[]) =>
    apply('set-layouts', {
      parts: some.map(({ start, end, kind }) => ({
        ...{ start, end, layout: structuredClone(LAYOUTS[kind]) },
        glide: start > 0 ? secondsToTicks(GLIDE) : 0,
      })),
    });
  return (
    <div className="grid grid-cols-1 gap-2">
      <Heading title="Layouts for the steps">
        {open.length > 1 && <Button onClick={() => take(open)}>Take all</Button>}
      </Heading>
      {!found && (
        <p className="flex items-center gap-2 text-ink-2">
          <LoaderCircle size={14} aria-hidden className="animate-spin" /> Looking at the steps
        </p>
      )}
      {found && !open.length && (
        <p className="text-ink-2">
          {project.steps.some(({ start }) => start !== null)
            ? 'Each step has the layout that suits what is known of it, or one of your own.'
            : 'There are no steps with a time yet. Record one, or set steps on the timeline.'}
        </p>
      )}
      <ul className="grid gap-3">
        {open.map((one) => (
          <li key={one.stepId} className="grid gap-1 border-t border-line pt-2">
            <button
              className="text-left font-semibold underline-offset-2 hover:underline"
              title="Go to the step"
              onClick={() => session.seek(one.start)}
            >
              {project.steps.find(({ id }) => id === one.stepId)?.title || 'A step'}
            </button>
            <p>
              {LAYOUTS[one.kind].name}. <span className="text-ink-2">{one.reason}</span>
            </p>
            <span className="flex gap-1">
              <Button onClick={() => take([one])}>Take it</Button>
              <Button
                look="quiet"
                onClick={() => setLeft(new Set([...left, `${one.stepId} ${one.kind}`]))}
              >
                Leave it
              </Button>
            </span>
          </li>
        ))}
      </ul>
    </div>
  );
}
