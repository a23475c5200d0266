'use client';
import { placedSteps } from '@/core/project/query';
import { useEditor } from '../store';
import { inSight, PLAIN_PX, ROW, toPixels, type Sight } from './geometry';

/** Steps along the top, each as long as its time. */
export function StepsRibbon({ end, sight }: { end: number; sight: Sight }) {
  const project = useEditor((s) => s.project);
  const scale = useEditor((s) => s.pixelsPerSecond);
  const selection = useEditor((s) => s.selection);
  const select = useEditor((s) => s.select);
  const steps = placedSteps(project);
  const numbers = new Map(project.steps.map((s, i) => [s.id, i + 1]));
  return steps.map((step, i) => {
    const until = steps[i + 1]?.start ?? Math.max(end, step.start);
    if (!inSight(sight, step.start, until, scale)) return null;
    const chosen = selection?.kind === 'step' && selection.id === step.id;
    const width = Math.max(4, toPixels(until - step.start, scale) - 2);
    return (
      <button
        key={step.id}
        data-step={step.id}
        tabIndex={chosen ? 0 : -1}
        aria-label={`Step ${numbers.get(step.id)} ${step.title}`}
        className={`absolute top-0.5 truncate border-l-2 px-1 text-left text-[11px] ${chosen ? 'border-action bg-action text-on-action' : i % 2 ? 'border-ink-2 bg-line/25' : 'border-ink-2 bg-line/60'}`}
        style={{
          left: toPixels(step.start, scale),
          width,
          height: ROW.steps - 5,
        }}
        onClick={() => select({ kind: 'step', id: step.id })}
      >
        {width >= PLAIN_PX && `${numbers.get(step.id)} ${step.title}`}
      </button>
    );
  });
}
