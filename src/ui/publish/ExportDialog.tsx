'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { presetsFor } from '@/core/project/export-presets';
import { projectDuration } from '@/core/project/query';
import { evenSize, exportScale, wholeSizes } from '@/core/scale/export-size';
import type { Size } from '@/core/scale/rect';
import { framesPerSecond, rateFromNumber, ticksToSeconds, type FrameRate } from '@/core/time/ticks';
import { formatClock, parseTimecode } from '@/core/time/timecode';
import { FORMAT_FACTS, type Format, type Quality } from '@/core/project/export-formats';
import { useEditor } from '../edit/store';
import { Button } from '../parts/Button';
import { Dialog } from '../parts/Dialog';
import { CheckField, Field, inputLook, NumberField, SelectField } from '../parts/fields';
import { RATES } from '../projects/rates';
import { api } from '../shell/api';
import { tellFault } from '../shell/notices-store';

const FORMAT_NAMES: readonly (readonly [Format, string])[] = [
  ['mp4', 'MP4 (H.264, AAC): plays everywhere'],
  ['mov', 'MOV (H.264, AAC)'],
  ['webm', 'WebM (VP9, Opus)'],
  ['av1', 'WebM (AV1, Opus): smallest'],
  ['gif', 'GIF: moving picture without sound'],
  ['m4a', 'M4A: sound only (AAC)'],
  ['mp3', 'MP3: sound only'],
  ['wav', 'WAV: sound only, uncompressed'],
  ['png', 'PNG: one picture'],
];

const QUALITY_NAMES: readonly (readonly [Quality | 'rate', string])[] = [
  ['high', 'High: for an archive or further work'],
  ['good', 'Good: for showing'],
  ['small', 'Small: for sending'],
  ['rate', 'Bit rate: for a limit that is given'],
];

const SHARES = [1, 2 / 3, 1 / 2] as const;
/** A GIF of a minute at the project's size and rate would be hundreds of megabytes. */
const GIF = { share: 1 / 2, rate: '12.5' };
const GIF_RATES: readonly (readonly [string, FrameRate])[] = [
  ['10', rateFromNumber(10)],
  [GIF.rate, rateFromNumber(12.5)],
  ['25', rateFromNumber(25)],
];
const keyOf = ({ width, height }: Size) => `${width}x${height}`;
const nameOf = ({ width, height }: Size) => `${width}×${height} px`;
const same = (a: FrameRate, b: FrameRate) => a.num * b.den === b.num * a.den;

interface Choice {
  readonly format: Format;
  readonly size: Size;
  readonly frameRate: FrameRate;
  readonly quality: Quality | 'rate';
  readonly bitRate: number;
  readonly calm: boolean;
}

export function ExportDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  const router = useRouter();
  const id = useEditor((s) => s.id);
  const save = useEditor((s) => s.save);
  const canvas = useEditor((s) => s.project.canvas);
  const target = useEditor((s) => s.project.target.id);
  const playhead = useEditor((s) => s.playhead);
  const length = useEditor((s) => projectDuration(s.project));
  const [changes, setChanges] = useState<Partial<Choice>>({});
  const [preset, setPreset] = useState<string | null>(null);
  const [from, setFrom] = useState('');
  const [to, setTo] = useState('');
  const [busy, setBusy] = useState(false);
  const presets = presetsFor(canvas);
  const own: Size = { width: canvas.width, height: canvas.height };
  // What suits the project's target, until something else is chosen.
  const suited = presets.find((p) => p.id === target);
  const chosen: Choice = {
    format: 'mp4',
    size: suited?.size ?? own,
    frameRate: canvas.frameRate,
    quality: suited?.quality ?? 'good',
    bitRate: 8,
    calm: false,
    ...changes,
  };
  const change = (what: Partial<Choice>) => setChanges({ ...changes, ...what });
  const { picture, sound } = FORMAT_FACTS[chosen.format];
  const takePreset = (name: string) => {
    setPreset(name);
    const found = presets.find((p) => p.id === name);
    if (found) change({ format: 'mp4', size: found.size, frameRate: found.frameRate, quality: found.quality });
  };
  const setFormat = (format: Format) => {
    setPreset('own');
    if (format === 'gif') change({ format, size: evenSize(own, GIF.share), frameRate: rateFromNumber(Number(GIF.rate)) });
    else if (chosen.format === 'gif') change({ format, size: own, frameRate: canvas.frameRate });
    else change({ format });
  };
  const set = (what: Partial<Choice>) => {
    setPreset('own');
    change(what);
  };
  const submit = async () => {
    const ends = [from, to].map((text) => (text.trim() ? parseTimecode(text, canvas.frameRate) : null));
    if ([from, to].some((text, i) => text.trim() && ends[i] === null))
      return tellFault('Type the range as times, for example 0:05 and 0:20.');
    const given = from.trim() || to.trim() ? { start: ticksToSeconds(ends[0] ?? 0), end: ticksToSeconds(ends[1] ?? length) } : null;
    const still = { start: ticksToSeconds(ends[0] ?? playhead), end: ticksToSeconds(length) };
    const { size, quality, bitRate, ...rest } = chosen;
    setBusy(true);
    try {
      await api(`/api/projects/${id}/exports`, {
        method: 'POST',
        body: {
          ...rest,
          ...size,
          quality: quality === 'rate' ? 'good' : quality,
          bitRate: quality === 'rate' ? bitRate : null,
          range: picture === 'still' ? still : given,
        },
      });
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
      description="Made from the original recordings. It runs in the background; you can go on editing."
    >
      <div className="grid gap-3">
        {presets.length > 0 && (
          <SelectField
            label="For"
            value={preset ?? suited?.id ?? 'own'}
            options={[...presets.map((p) => [p.id, `${p.name} (${nameOf(p.size)}, MP4)`] as const), ['own', 'Own settings'] as const]}
            onChange={takePreset}
          />
        )}
        <SelectField label="Format" value={chosen.format} options={FORMAT_NAMES} onChange={setFormat} />
        {picture && <SizeField own={own} size={chosen.size} onChange={(size) => set({ size })} />}
        {picture === 'video' && (
          <RateField format={chosen.format} own={canvas.frameRate} rate={chosen.frameRate} onChange={(frameRate) => set({ frameRate })} />
        )}
        {picture === 'video' && chosen.format !== 'gif' && (
          <SelectField label="Quality" value={chosen.quality} options={QUALITY_NAMES} onChange={(quality) => set({ quality })} />
        )}
        {picture === 'video' && chosen.format !== 'gif' && chosen.quality === 'rate' && (
          <NumberField
            label="Bit rate"
            unit="Mbit/s"
            value={chosen.bitRate}
            min={0.1}
            max={200}
            step={0.5}
            onDone={(bitRate) => set({ bitRate })}
          />
        )}
        <Field
          label={picture === 'still' ? 'At' : 'Range'}
          hint={picture === 'still' ? 'Empty is the playhead.' : `Empty is all of it, ${formatClock(ticksToSeconds(length))}.`}
        >
          {(fieldId) => (
            <div className="flex items-center gap-2">
              <input
                id={fieldId}
                aria-label={picture === 'still' ? 'Time of the picture' : 'Range start'}
                placeholder={picture === 'still' ? formatClock(ticksToSeconds(playhead)) : 'start'}
                className={`${inputLook} numbers`}
                value={from}
                onChange={(e) => setFrom(e.target.value)}
              />
              {picture !== 'still' && (
                <>
                  to
                  <input
                    aria-label="Range end"
                    placeholder="end"
                    className={`${inputLook} numbers`}
                    value={to}
                    onChange={(e) => setTo(e.target.value)}
                  />
                </>
              )}
            </div>
          )}
        </Field>
        {picture === 'video' && <CheckField label="Calm camera noise" value={chosen.calm} onChange={(calm) => change({ calm })} />}
        {!sound && picture === 'video' && <p className="text-xs text-ink-2">This format has no sound.</p>}
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

/** The size, and what it does to text. */
function SizeField({ own, size, onChange }: { own: Size; size: Size; onChange: (size: Size) => void }) {
  const sizes = [...SHARES.map((share) => evenSize(own, share)), size].filter(
    (s, i, all) => all.findIndex((o) => keyOf(o) === keyOf(s)) === i,
  );
  const { scale, whole } = exportScale(size, own);
  return (
    <div className="grid gap-1">
      <SelectField
        label="Size"
        value={keyOf(size)}
        options={sizes.map((s) => [keyOf(s), `${nameOf(s)}${keyOf(s) === keyOf(own) ? ', as the project' : ''}`] as const)}
        onChange={(key) => onChange(sizes.find((s) => keyOf(s) === key)!)}
      />
      {!whole && (
        <p className="text-xs text-caution">
          Everything is scaled by {scale.toFixed(2)}, between whole pixels: small text gets softer. Sizes that don’t:{' '}
          {wholeSizes(own)
            .filter((s) => s.width <= own.width)
            .map(nameOf)
            .join(', ')}
          .
        </p>
      )}
    </div>
  );
}

function RateField({
  format,
  own,
  rate,
  onChange,
}: {
  format: Format;
  own: FrameRate;
  rate: FrameRate;
  onChange: (rate: FrameRate) => void;
}) {
  const rates = format === 'gif' ? GIF_RATES : RATES;
  const ownName = `${Number(framesPerSecond(own).toFixed(2))} fps, as the project`;
  const options = [
    ...(format === 'gif' && framesPerSecond(own) > 25 ? [] : [['own', ownName, own] as const]),
    ...rates.filter(([, r]) => !same(r, own)).map(([label, r]) => [label, `${label} fps`, r] as const),
  ];
  const value = options.find(([, , r]) => same(r, rate))?.[0] ?? options[0]![0];
  return (
    <SelectField
      label="Frame rate"
      value={value}
      options={options.map(([key, label]) => [key, label] as const)}
      onChange={(key) => onChange(options.find(([k]) => k === key)![2])}
    />
  );
}
