'use client';
import { Check, Circle } from 'lucide-react';
import { placedSteps } from '@/core/project/query';
import type { Step } from '@/core/project/model';
import { formatClock } from '@/core/time/timecode';
import { STEP_PARTS, stepStatus } from '@/core/words/status';
import { useEditor } from '../edit/store';

/** What a step has already, and how long it is against its plan. */
export function StepStatusLine({ step }: { step: Step }) {
  const project = useEditor((s) => s.project);
  const { has, planned, recorded, words } = stepStatus(project, step);
  const captions = project.target.captions === 'needed';
  const order = placedSteps(project).map((s) => s.id);
  const outline = project.steps.filter((s) => s.start !== null).map((s) => s.id);
  const moved = step.start !== null && order.indexOf(step.id) !== outline.indexOf(step.id);
  return (
    <span className="flex flex-wrap items-center gap-x-2 text-xs text-ink-2">
      {STEP_PARTS.map((part) => (
        <span
          key={part}
          className={`flex items-center gap-0.5 ${has[part] ? 'text-good' : ''}`}
          aria-label={`${part}: ${has[part] ? 'there' : 'missing'}`}
        >
          {has[part] ? <Check size={12} aria-hidden /> : <Circle size={9} aria-hidden />}
          {part}
        </span>
      ))}
      {captions && (
        <span className="flex items-center gap-0.5" aria-label="captions: missing">
          <Circle size={9} aria-hidden />
          captions
        </span>
      )}
      <span
        className="numbers"
        title={`${words} words at ${project.script.wordsPerMinute} words a minute`}
      >
        plan {formatClock(planned)}
        {recorded !== null && ` · is ${formatClock(recorded)}`}
      </span>
      {moved && (
        <span
          className="text-caution"
          title="The recording was left where it is on the timeline. Move it in Edit, or record the step again."
        >
          other order on the timeline
        </span>
      )}
    </span>
  );
}
