'use client';
import { useRouter } from 'next/navigation';
import { useForm, useWatch } from 'react-hook-form';
import { call } from '@/contract/call';
import { requestExport } from '@/contract/exports';
import {
  chooseFormat,
  choosePreset,
  exportRequest,
  suitedChoice,
  typedRange,
  type ExportChoice,
  type TypedRange,
} from '@/core/project/export-choice';
import { FORMAT_FACTS, type Format } from '@/core/project/export-formats';
import { presetsFor } from '@/core/project/export-presets';
import { projectDuration } from '@/core/project/query';
import { useEditor, useTransport } from '../edit/store';
import { Button } from '../parts/Button';
import { Dialog } from '../parts/Dialog';
import { CheckField, NumberField, SelectField } from '../parts/fields';
import { tell, tellFault } from '../shell/notices-store';
import { ExportRangeField } from './ExportRangeField';
import { ExportRateField } from './ExportRateField';
import { ExportSizeField, sizeName } from './ExportSizeField';

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

const QUALITY_NAMES: readonly (readonly [ExportChoice['quality'], string])[] = [
  ['high', 'High: for an archive or further work'],
  ['good', 'Good: for showing'],
  ['small', 'Small: for sending'],
  ['rate', 'Bit rate: for a limit that is given'],
];

interface ExportForm {
  /** Null is what suits the project's target, until something else is chosen. */
  readonly own: ExportChoice | null;
  readonly preset: string | null;
  readonly range: TypedRange;
}

/** Settings of one's own, in the list of presets. */
const OWN = 'own';

export function ExportDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  const router = useRouter();
  const id = useEditor((s) => s.id);
  const save = useEditor((s) => s.save);
  const canvas = useEditor((s) => s.project.canvas);
  const target = useEditor((s) => s.project.target.id);
  // Asked for only while it is open: it changes with each frame that is played.
  const playhead = useTransport((t) => (open ? t.playhead : 0));
  const length = useEditor((s) => projectDuration(s.project));
  const { control, reset, setValue, setError, clearErrors, handleSubmit, formState } =
    useForm<ExportForm>({
      defaultValues: { own: null, preset: null, range: { from: '', to: '' } },
    });
  const own = useWatch({ control, name: 'own' });
  const preset = useWatch({ control, name: 'preset' });
  const range = useWatch({ control, name: 'range' });
  const { errors, isSubmitting: busy } = formState;
  const presets = presetsFor(canvas);
  const chosen = own ?? suitedChoice(canvas, target);
  const { picture, sound, bitRate: holdsRate } = FORMAT_FACTS[chosen.format];
  const set = (choice: ExportChoice, from: string = OWN) => {
    setValue('preset', from);
    setValue('own', choice);
    clearErrors();
  };
  const takePreset = (name: string) => {
    const found = presets.find((p) => p.id === name);
    set(found ? choosePreset(chosen, found) : chosen, name);
  };
  const submit = handleSubmit(async ({ range }) => {
    const stretch = typedRange(range, canvas.frameRate, {
      playhead,
      length,
      still: picture === 'still',
    });
    if (typeof stretch === 'string') return setError('range.from', { message: stretch });
    try {
      await call(requestExport, { params: { id }, body: exportRequest(chosen, stretch) });
      tell('The export has begun. You can go on editing; it says when it is done.', {
        label: 'Show in Publish',
        run: () => router.push(`/projects/${id}/publish`),
      });
      onClose();
      reset();
    } catch (error) {
      tellFault(error);
      setError('root', {});
    }
  });
  return (
    <Dialog
      open={open}
      onClose={onClose}
      title="Export"
      description="Made from the original recordings. It runs in the background; you can go on editing."
    >
      {/* Enter sets the number that is typed; it does not start what takes minutes. */}
      <div className="grid gap-3">
        {presets.length > 0 && (
          <SelectField
            label="For"
            value={preset ?? presets.find((p) => p.id === target)?.id ?? OWN}
            options={[
              ...presets.map((p) => [p.id, `${p.name} (${sizeName(p.size)}, MP4)`] as const),
              [OWN, 'Custom'] as const,
            ]}
            onChange={takePreset}
          />
        )}
        <SelectField
          label="Format"
          value={chosen.format}
          options={FORMAT_NAMES}
          onChange={(format) => set(chooseFormat(chosen, format, canvas))}
        />
        {picture && (
          <ExportSizeField
            own={canvas}
            size={chosen.size}
            onChange={(size) => set({ ...chosen, size })}
          />
        )}
        {picture === 'video' && (
          <ExportRateField
            format={chosen.format}
            own={canvas.frameRate}
            rate={chosen.frameRate}
            onChange={(frameRate) => set({ ...chosen, frameRate })}
          />
        )}
        {holdsRate && (
          <SelectField
            label="Quality"
            value={chosen.quality}
            options={QUALITY_NAMES}
            onChange={(quality) => set({ ...chosen, quality })}
          />
        )}
        {holdsRate && chosen.quality === 'rate' && (
          <NumberField
            label="Bit rate"
            unit="Mbit/s"
            value={chosen.bitRate}
            min={0.1}
            max={200}
            step={0.5}
            onDone={(bitRate) => set({ ...chosen, bitRate })}
          />
        )}
        <ExportRangeField
          still={picture === 'still'}
          length={length}
          playhead={playhead}
          range={range}
          onChange={(typed) => {
            setValue('range', typed);
            clearErrors('range');
          }}
        />
        {errors.range?.from && (
          <p role="alert" className="text-fault">
            {errors.range.from.message}
          </p>
        )}
        {picture === 'video' && (
          <CheckField
            label="Camera noise reduction"
            value={chosen.calm}
            onChange={(calm) => setValue('own', { ...chosen, calm })}
          />
        )}
        {!sound && picture === 'video' && (
          <p className="text-xs text-ink-2">This format has no sound.</p>
        )}
        {save !== 'saved' && (
          <p className="text-xs text-ink-2">Waiting for your last change to be saved…</p>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button
            look="primary"
            disabled={busy || save !== 'saved' || length === 0}
            onClick={() => void submit()}
          >
            {busy ? 'Starting…' : 'Start export'}
          </Button>
        </div>
        {length === 0 && (
          <p className="text-xs text-caution">
            The timeline is empty; there is nothing to export yet.
          </p>
        )}
      </div>
    </Dialog>
  );
}
