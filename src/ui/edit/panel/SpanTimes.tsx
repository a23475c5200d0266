'use client';
import { stepAt, stepRange } from '@/core/project/query';
import type { Range } from '@/core/time/ranges';
import { formatTimecode, parseTimecode } from '@/core/time/timecode';
import { Button } from '../../parts/Button';
import { TextField } from '../../parts/fields';
import { tellFault } from '../../shell/notices-store';
import { playheadOf, useEditor, useEditorStore } from '../store';

/** Start and end of something with a time, as timecode; and its removal. */
export function SpanTimes({ span, name }: { span: Range & { id: string }; name: string }) {
  const apply = useEditor((s) => s.apply);
  const rate = useEditor((s) => s.project.canvas.frameRate);
  const store = useEditorStore();
  const step = useEditor((s) => stepAt(s.project, span.start)?.id ?? null);
  const put = (range: Partial<Range>) =>
    apply('time-span', { id: span.id, start: span.start, end: span.end, ...range });
  const set = (key: 'start' | 'end') => (text: string) => {
    const time = parseTimecode(text, rate);
    if (time === null) return tellFault('Type a time as 12, 1:05, 12.5 or 00:00:12:04.');
    put({ [key]: time });
  };
  const here = () => playheadOf(store.getState());
  return (
    <>
      <TextField label="Start" value={formatTimecode(span.start, rate)} onDone={set('start')} />
      <TextField label="End" value={formatTimecode(span.end, rate)} onDone={set('end')} />
      <div className="flex flex-wrap gap-1">
        <Button onClick={() => put({ start: here() })}>Begin here</Button>
        <Button onClick={() => put({ end: here() })}>End here</Button>
        {step && (
          <Button onClick={() => put(stepRange(store.getState().project, step) ?? {})}>
            As long as its step
          </Button>
        )}
      </div>
      <Button onClick={() => apply('remove-span', { id: span.id })}>Remove {name}</Button>
    </>
  );
}
