'use client';
import { Plus } from 'lucide-react';
import { stepAt, stepRange } from '@/core/project/query';
import { snapToFrame, ticksToSeconds } from '@/core/time/ticks';
import { formatClock } from '@/core/time/timecode';
import { Button } from '../../parts/Button';
import { playheadOf, useAtPlayhead, useEditor, useEditorStore } from '../store';

/** The script to read along with; the step at the playhead is marked. */
export function StepsPanel() {
  const store = useEditorStore();
  const steps = useEditor((s) => s.project.steps);
  const project = useEditor((s) => s.project);
  const current = useAtPlayhead((s, playhead) => stepAt(s.project, playhead)?.id ?? null);
  const add = () => {
    const { project, apply, select } = store.getState();
    const playhead = playheadOf(store.getState());
    const start = snapToFrame(playhead, project.canvas.frameRate);
    const words = { title: 'New step', narration: '', action: '', notes: '' };
    const done = apply('add-step', { start, words });
    if (done) select({ kind: 'step', id: done.result });
  };
  const lengthOf = (id: string) => {
    const range = stepRange(project, id);
    return range ? formatClock(ticksToSeconds(range.end - range.start)) : 'planned';
  };
  return (
    <div className="p-2">
      {!steps.length && (
        <p className="p-2 text-ink-2">
          No steps yet. A step is some narration and what happens on screen meanwhile; steps become
          the ribbon above the timeline.
        </p>
      )}
      <ol aria-label="Steps">
        {steps.map((step, i) => (
          <li
            key={step.id}
            className={`border-l-2 px-3 py-1.5 ${step.id === current ? 'border-action bg-sheet' : 'border-transparent'}`}
          >
            <button
              className="block w-full text-left"
              onClick={() => store.getState().select({ kind: 'step', id: step.id })}
            >
              <span className="flex justify-between gap-2 font-semibold">
                <span>
                  {i + 1} {step.title}
                </span>
                <span className="numbers text-xs font-normal text-ink-2">{lengthOf(step.id)}</span>
              </span>
              <span dir="auto" className="line-clamp-6 block">
                {step.narration}
              </span>
              <span className="block text-xs text-ink-2">{step.action}</span>
            </button>
          </li>
        ))}
      </ol>
      <Button className="mt-2 ml-2" onClick={add}>
        <Plus size={14} aria-hidden /> Step at the playhead
      </Button>
    </div>
  );
}
