'use client';
import { Step } from '@/core/project/parts/step';
import { Button } from '../../parts/Button';
import { TextField } from '../../parts/fields';
import { useEditor } from '../store';
import { Heading } from './Heading';
import { TextOf } from './TextOf';

export function StepDetails({ id }: { id: string }) {
  const step = useEditor((s) => s.project.steps.find((x) => x.id === id));
  const apply = useEditor((s) => s.apply);
  if (!step) return null;
  return (
    <div className="grid gap-2">
      <Heading title="Step" />
      <TextOf
        id={id}
        label="Title"
        most={Step.properties.title.maxLength}
        value={step.title}
        onDone={(title) => apply('change-step', { id, change: { title } })}
      />
      <TextField
        label="Narration"
        lines={4}
        value={step.narration}
        onDone={(narration) => apply('change-step', { id, change: { narration } })}
      />
      <TextField
        label="On screen"
        lines={3}
        value={step.action}
        onDone={(action) => apply('change-step', { id, change: { action } })}
      />
      <TextField
        label="Notes"
        lines={2}
        value={step.notes}
        onDone={(notes) => apply('change-step', { id, change: { notes } })}
      />
      <Button onClick={() => apply('remove-step', { id })}>Remove step</Button>
    </div>
  );
}
