'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { framesPerSecond, ticksToSeconds } from '@/core/time/ticks';
import { formatClock, parseTimecode } from '@/core/time/timecode';
import { projectDuration } from '@/core/project/query';
import type { Quality } from '@/server/export/settings';
import { Button } from '../parts/Button';
import { Dialog } from '../parts/Dialog';
import { Field, inputLook, SelectField } from '../parts/fields';
import { RATES } from '../projects/rates';
import { useEditor } from '../edit/store';
import { api } from '../shell/api';
import { tellFault } from '../shell/notices-store';

const QUALITY_NAMES: readonly (readonly [Quality, string])[] = [
  ['high', 'High: for an archive or further work'],
  ['good', 'Good: for showing'],
  ['small', 'Small: for sending'],
];

const SCALES = [1, 2 / 3, 0.5] as const;

export function ExportDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  const router = useRouter();
  const id = useEditor((s) => s.id);
  const save = useEditor((s) => s.save);
  const canvas = useEditor((s) => s.project.canvas);
  const length = useEditor((s) => projectDuration(s.project));
  const own = `${canvas.width}x${canvas.height}`;
  const [size, setSize] = useState<string | null>(null);
  const [rate, setRate] = useState<string | null>(null);
  const [quality, setQuality] = useState<Quality>('good');
  const [from, setFrom] = useState('');
  const [to, setTo] = useState('');
  const [busy, setBusy] = useState(false);
  const even = (n: number) => Math.round(n / 2) * 2;
  const sizes = SCALES.map((s): [string, string] => {
    const [w, h] = [even(canvas.width * s), even(canvas.height * s)];
    return [`${w}x${h}`, `${w}×${h} px${s === 1 ? ', as the project' : ''}`];
  });
  const ownRate = RATES.find(([, r]) => r.num * canvas.frameRate.den === canvas.frameRate.num * r.den)?.[0];
  const chosen = size ?? own;
  const submit = async () => {
    const ends = [from, to].map((text) => (text.trim() ? parseTimecode(text, canvas.frameRate) : null));
    if ([from, to].some((text, i) => text.trim() && ends[i] === null))
      return tellFault('Type the range as times, for example 0:05 and 0:20.');
    const range = from.trim() || to.trim() ? { start: ticksToSeconds(ends[0] ?? 0), end: ticksToSeconds(ends[1] ?? length) } : null;
    const [width, height] = chosen.split('x').map(Number);
    const frameRate = rate ? RATES.find(([label]) => label === rate)![1] : canvas.frameRate;
    setBusy(true);
    try {
      await api(`/api/projects/${id}/exports`, { method: 'POST', body: { width, height, frameRate, quality, range } });
      router.push(`/projects/${id}/publish`);
    } catch (error) {
      tellFault(error);
      setBusy(false);
    }
  };
  return (
    <Dialog
      open={open}
      onClose={onClose}
      title="Export"
      description="MP4 (H.264, AAC), made from the original recordings. It runs in the background; you can go on editing."
    >
      <div className="grid gap-3">
        <SelectField label="Size" value={chosen} options={sizes} onChange={setSize} />
        {chosen !== own && (
          <p className="text-xs text-caution">
            At another size than the project’s everything is scaled once more. Keep {canvas.width}×{canvas.height} px for the sharpest text.
          </p>
        )}
        <SelectField
          label="Frame rate"
          value={rate ?? 'own'}
          options={[
            ['own', `${ownRate ?? framesPerSecond(canvas.frameRate)} fps, as the project`],
            ...RATES.filter(([label]) => label !== ownRate).map(([label]) => [label, `${label} fps`] as const),
          ]}
          onChange={(value) => setRate(value === 'own' ? null : value)}
        />
        <SelectField label="Quality" value={quality} options={QUALITY_NAMES} onChange={setQuality} />
        <Field label="Range" hint={`Empty is all of it, ${formatClock(ticksToSeconds(length))}.`}>
          {(fieldId) => (
            <div className="flex items-center gap-2">
              <input
                id={fieldId}
                aria-label="Range start"
                placeholder="start"
                className={`${inputLook} numbers`}
                value={from}
                onChange={(e) => setFrom(e.target.value)}
              />
              to
              <input
                aria-label="Range end"
                placeholder="end"
                className={`${inputLook} numbers`}
                value={to}
                onChange={(e) => setTo(e.target.value)}
              />
            </div>
          )}
        </Field>
        {save !== 'saved' && <p className="text-xs text-ink-2">Waiting for your last change to be saved…</p>}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button look="primary" disabled={busy || save !== 'saved' || length === 0} onClick={() => void submit()}>
            {busy ? 'Starting…' : 'Start export'}
          </Button>
        </div>
        {length === 0 && <p className="text-xs text-caution">The timeline is empty; there is nothing to export yet.</p>}
      </div>
    </Dialog>
  );
}
