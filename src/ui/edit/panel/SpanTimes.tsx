'use client';
import type { Range } from '@/core/time/ranges';
import { formatTimecode, parseTimecode } from '@/core/time/timecode';
import { Button } from '../../parts/Button';
import { TextField } from '../../parts/fields';
import { tellFault } from '../../shell/notices-store';
import { useEditor } from '../store';

/** Start and end of something with a time, as timecode; and its removal. */
export function SpanTimes({ span, name }: { span: Range & { id: string }; name: string }) {
  const apply = useEditor((s) => s.apply);
  const rate = useEditor((s) => s.project.canvas.frameRate);
  const set = (key: 'start' | 'end') => (text: string) => {
    const time = parseTimecode(text, rate);
    if (time === null) return tellFault('Type a time as 12, 1:05, 12.5 or 00:00:12:04.');
    apply('time-span', { id: span.id, start: span.start, end: span.end, [key]: time });
  };
  return (
    <>
      <TextField label="Start" value={formatTimecode(span.start, rate)} onDone={set('start')} />
      <TextField label="End" value={formatTimecode(span.end, rate)} onDone={set('end')} />
      <Button onClick={() => apply('remove-span', { id: span.id })}>Remove {name}</Button>
    </>
  );
}
