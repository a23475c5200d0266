'use client';
import { useDeferredValue, useMemo } from 'react';
import { useForm, useWatch } from 'react-hook-form';
import { readingSeconds } from '@/core/words/count';
import { parseScript } from '@/core/words/parse';
import { stepsFromTable } from '@/core/words/table';
import { formatClock } from '@/core/time/timecode';
import { useEditor, useEditorStore } from '../edit/store';
import { Button } from '../parts/Button';
import { Dialog } from '../parts/Dialog';
import { inputLook } from '../parts/fields';
import { tell, tellFault } from '../shell/notices-store';
import { readClipboard, type Pasted } from './clipboard';

const SHOWN = 40;
const LARGEST_FILE = 32 << 20;
const KINDS = { table: 'a table', markdown: 'Markdown', text: 'plain text' } as const;

interface PasteForm {
  readonly script: Pasted;
  readonly replace: boolean;
}

/** A script becomes steps: pasted or out of a file, looked at first. */
export function PasteDialog({ pasted, onClose }: { pasted: Pasted; onClose: () => void }) {
  const store = useEditorStore();
  const existing = useEditor((s) => s.project.steps.length);
  const planned = useEditor((s) => s.project.steps.filter((step) => step.start === null).length);
  const speed = useEditor((s) => s.project.script.wordsPerMinute);
  const { control, register, setValue, handleSubmit } = useForm<PasteForm>({
    defaultValues: { script: pasted, replace: false },
  });
  const now = useWatch({ control, name: 'script' });
  const replace = useWatch({ control, name: 'replace' });
  const setNow = (script: Pasted) => setValue('script', script);
  const deferred = useDeferredValue(now);
  const { kind, steps } = useMemo(
    () =>
      deferred.grid
        ? { kind: 'table' as const, steps: stepsFromTable(deferred.grid) }
        : parseScript(deferred.text),
    [deferred],
  );
  const seconds = useMemo(
    () => steps.reduce((sum, s) => sum + readingSeconds(s.narration, speed), 0),
    [steps, speed],
  );
  const make = handleSubmit(() => {
    const made = steps.map(({ title, narration, action, notes }) => {
      return { title: title.slice(0, 500), narration, action, notes };
    });
    const done = store.getState().apply('insert-steps', { at: null, words: made, replace });
    if (!done) return;
    tell(`${made.length} ${made.length === 1 ? 'step' : 'steps'} made of the script.`, {
      label: 'Undo',
      run: () => store.getState().undo(),
    });
    onClose();
  });
  const open = (file: File | undefined) => {
    if (!file) return;
    if (file.size > LARGEST_FILE)
      return tellFault(`${file.name} is larger than 32 MB. Save it as plain text or CSV first.`);
    void file.text().then(
      (text) => setNow({ text, grid: null }),
      () => tellFault(`${file.name} could not be read.`),
    );
  };
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title="Paste a script"
      description="Plain text with a blank line between steps, Markdown with headings, CSV, or a table copied from a document or spreadsheet."
    >
      <form className="grid gap-3" onSubmit={(e) => void make(e)}>
        <textarea
          aria-label="Script"
          autoFocus
          dir="auto"
          rows={8}
          className={`${inputLook} resize-y`}
          value={now.text}
          placeholder={
            'Hello, I am Ilse Varga.\n\nOpen the Firings menu and choose New firing.\nScreen: the menu, then New firing'
          }
          onChange={(e) => setNow({ text: e.target.value, grid: null })}
          onPaste={(e) => {
            const read = readClipboard(e.clipboardData);
            if (!read?.grid) return;
            e.preventDefault();
            setNow(read);
          }}
        />
        <label className="text-ink-2">
          or a file:{' '}
          <input
            type="file"
            accept=".txt,.md,.markdown,.csv,.tsv,text/plain,text/csv"
            onChange={(e) => open(e.target.files?.[0])}
          />
        </label>
        <div aria-live="polite">
          {steps.length > 0 ? (
            <p>
              <strong>
                {steps.length} {steps.length === 1 ? 'step' : 'steps'}
              </strong>{' '}
              out of {KINDS[kind]}, about <span className="numbers">{formatClock(seconds)}</span> to
              read.
            </p>
          ) : (
            <p className="text-ink-2">
              {now.text.trim()
                ? 'No steps were found in it.'
                : 'The steps are shown here before they are made.'}
            </p>
          )}
        </div>
        {steps.length > 0 && (
          <ol
            className="max-h-44 overflow-auto border border-line"
            aria-label="Steps that will be made"
          >
            {steps.slice(0, SHOWN).map((step, i) => (
              <li
                key={i}
                className="grid grid-cols-[1.5rem_1fr_1fr] gap-2 border-b border-line/60 px-2 py-1 text-xs"
              >
                <span className="numbers text-ink-2">{i + 1}</span>
                <span dir="auto" className="line-clamp-2">
                  {step.title && <strong>{step.title}. </strong>}
                  {step.narration.slice(0, 300)}
                </span>
                <span dir="auto" className="line-clamp-2 text-ink-2">
                  {step.action.slice(0, 300)}
                </span>
              </li>
            ))}
            {steps.length > SHOWN && (
              <li className="px-2 py-1 text-xs text-ink-2">and {steps.length - SHOWN} more</li>
            )}
          </ol>
        )}
        {planned > 0 && (
          <label className="flex items-center gap-2">
            <input type="checkbox" {...register('replace')} className="size-4 accent-(--action)" />
            Instead of the {planned} {planned === 1 ? 'step' : 'steps'} not recorded yet
          </label>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" look="primary" disabled={!steps.length || deferred !== now}>
            {existing && !replace ? 'Add' : 'Make'} {steps.length || ''}{' '}
            {steps.length === 1 ? 'step' : 'steps'}
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
