'use client';
import { changeStep, removeStep } from '@/core/edit/outline';
import { Button } from '../../parts/Button';
import { TextField } from '../../parts/fields';
import { useEditor } from '../store';
import { Heading } from './Heading';

export function StepDetails({ id }: { id: string }) {
  const step = useEditor((s) => s.project.steps.find((x) => x.id === id));
  const edit = useEditor((s) => s.edit);
  if (!step) return null;
  return (
    <div className="grid gap-2">
      <Heading title="Step" />
      <TextField
        label="Title"
        value={step.title}
        onDone={(title) => edit('Step title', (draft) => changeStep(draft, id, { title }))}
      />
      <TextField
        label="Narration"
        lines={4}
        value={step.narration}
        onDone={(narration) => edit('Narration', (draft) => changeStep(draft, id, { narration }))}
      />
      <TextField
        label="On screen"
        lines={3}
        value={step.action}
        onDone={(action) => edit('Step', (draft) => changeStep(draft, id, { action }))}
      />
      <TextField
        label="Notes"
        lines={2}
        value={step.notes}
        onDone={(notes) => edit('Step', (draft) => changeStep(draft, id, { notes }))}
      />
      <Button onClick={() => edit('Remove step', (draft) => removeStep(draft, id))}>
        Remove step
      </Button>
    </div>
  );
}
