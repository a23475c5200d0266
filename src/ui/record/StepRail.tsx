'use client';
import { ArrowLeft, ArrowRight, Camera, Mic, Monitor } from 'lucide-react';
import Link from 'next/link';
import { RadioGroup } from 'radix-ui';
import { useEffect, useRef } from 'react';
import { footageUrl } from '@/contract/footage';
import { stepRange } from '@/core/project/query';
import { TAKE_KINDS, type TakeKind } from '@/core/take/take';
import { overlaps } from '@/core/time/ranges';
import { ticksToSeconds } from '@/core/time/ticks';
import { formatClock } from '@/core/time/timecode';
import { readingSeconds } from '@/core/words/count';
import { stepStatus } from '@/core/words/status';
import { useEditor, useEditorStore } from '../edit/store';
import { Kbd } from '../keys/Kbd';
import { Button } from '../parts/Button';
import { useRecordKeyNames } from './actions';
import { useRecord, useRecordStore } from './record-store';
import { goToStep } from './use-record-keys';

const KINDS: Record<TakeKind, readonly [string, string]> = {
  all: ['All at once', 'Everything that is switched on is recorded together.'],
  voice: [
    'Voice',
    'The voice of one step after the other (with the camera, if it is on). The screen comes later.',
  ],
  screen: ['Screen', 'The screen of one step after the other, while its recorded voice is heard.'],
};

const PARTS = [
  ['voice', 'voice', Mic],
  ['screen', 'screen', Monitor],
  ['presenter', 'camera', Camera],
] as const;

/** The script to read from, step by step, and what is recorded of each. */
export function StepRail() {
  const editor = useEditorStore();
  const store = useRecordStore();
  const project = useEditor((s) => s.project);
  const id = useEditor((s) => s.id);
  const kind = useRecord((s) => s.kind);
  const stepId = useRecord((s) => s.stepId);
  const phase = useRecord((s) => s.phase);
  const keys = useRecordKeyNames();
  const set = useRecord((s) => s.set);
  const idle = phase === 'ready' || phase === 'review';
  const { steps } = project;
  const index = steps.findIndex((s) => s.id === stepId);
  const step = steps[index] ?? null;
  const current = useRef<HTMLLIElement>(null);
  useEffect(() => {
    current.current?.scrollIntoView({ block: 'nearest' });
  }, [stepId]);
  return (
    <aside
      className="grid min-h-0 grid-rows-[auto_minmax(120px,1fr)_auto_minmax(80px,220px)]"
      aria-label="Script"
    >
      <div className="border-b border-line p-3">
        <RadioGroup.Root
          aria-label="What is recorded"
          className="grid grid-cols-3 border border-line"
          disabled={!idle}
          value={kind}
          onValueChange={(k: TakeKind) => set({ kind: k })}
        >
          {TAKE_KINDS.map((k) => (
            <RadioGroup.Item
              key={k}
              value={k}
              className="bg-sheet px-1 py-1 data-[state=checked]:bg-action data-[state=checked]:font-semibold data-[state=checked]:text-on-action"
            >
              {KINDS[k][0]}
            </RadioGroup.Item>
          ))}
        </RadioGroup.Root>
        <p className="mt-1.5 text-xs text-ink-2">{KINDS[kind][1]}</p>
      </div>
      <div className="min-h-0 overflow-auto p-3" data-testid="prompter">
        {step ? (
          <>
            <h2 className="mb-1 text-xs text-ink-2">
              Step {index + 1} of {steps.length}
              {step.title && `: ${step.title}`}
              <span className="numbers">
                {' '}
                · about {formatClock(readingSeconds(step.narration, project.script.wordsPerMinute))}
              </span>
            </h2>
            <p dir="auto" className="text-lg leading-snug whitespace-pre-line">
              {step.narration || <span className="text-ink-2">Nothing is said in this step.</span>}
            </p>
            {step.action && (
              <p
                dir="auto"
                className="mt-2 border-l-2 border-lane-screen pl-2 whitespace-pre-line text-ink-2"
              >
                {step.action}
              </p>
            )}
            {step.notes && (
              <p dir="auto" className="mt-2 text-xs whitespace-pre-line text-ink-2">
                {step.notes}
              </p>
            )}
          </>
        ) : (
          <p className="text-ink-2">
            There is no script yet. A take then goes to the end of the timeline. To record step by
            step, write or paste one in{' '}
            <Link className="text-action underline" href={`/projects/${id}/outline`}>
              Outline
            </Link>
            .
          </p>
        )}
      </div>
      <StepVoice />
      <div className="grid min-h-0 grid-rows-[auto_minmax(0,1fr)] border-t border-line">
        <div className="flex items-center justify-between px-3 py-1.5">
          <Button disabled={!idle || index <= 0} onClick={() => goToStep(editor, store, -1)}>
            <ArrowLeft size={14} aria-hidden /> Back <Kbd>{keys.back}</Kbd>
          </Button>
          <Button
            disabled={!idle || index < 0 || index + 1 >= steps.length}
            onClick={() => goToStep(editor, store, 1)}
          >
            Next <ArrowRight size={14} aria-hidden /> <Kbd>{keys.next}</Kbd>
          </Button>
        </div>
        <ol className="min-h-0 overflow-auto border-t border-line" aria-label="Steps">
          {steps.map((s, i) => {
            const { has, recorded } = stepStatus(project, s);
            return (
              <li key={s.id} ref={s.id === stepId ? current : undefined}>
                <button
                  disabled={!idle}
                  aria-current={s.id === stepId ? 'step' : undefined}
                  onClick={() => set({ stepId: s.id })}
                  className={`flex w-full items-center gap-2 border-l-2 px-3 py-1 text-left ${s.id === stepId ? 'border-action bg-sheet' : 'border-transparent'}`}
                >
                  <span className="numbers w-5 text-ink-2">{i + 1}</span>
                  <span dir="auto" className="min-w-0 flex-1 truncate">
                    {s.title || s.narration.slice(0, 60) || 'untitled'}
                  </span>
                  <span className="flex gap-0.5 text-good">
                    {PARTS.map(
                      ([part, label, Icon]) =>
                        has[part] && <Icon key={part} size={12} aria-label={`${label} recorded`} />,
                    )}
                  </span>
                  {recorded !== null && (
                    <span className="numbers text-xs text-ink-2">{formatClock(recorded)}</span>
                  )}
                </button>
              </li>
            );
          })}
        </ol>
      </div>
    </aside>
  );
}

/** While the screen of a step is recorded, its voice is heard. */
function StepVoice() {
  const kind = useRecord((s) => s.kind);
  const stepId = useRecord((s) => s.stepId);
  const phase = useRecord((s) => s.phase);
  const project = useEditor((s) => s.project);
  const ready = useEditor((s) =>
    s.footage
      .filter((f) => f.status === 'ready')
      .map((f) => f.id)
      .join(' '),
  );
  const audio = useRef<HTMLAudioElement>(null);
  const range = stepId ? stepRange(project, stepId) : null;
  const clip =
    range &&
    project.lanes
      .filter((l) => l.kind === 'voice')
      .flatMap((l) => l.clips)
      .find((c) => overlaps({ start: c.start, end: c.start + c.duration }, range));
  const from =
    clip && range ? ticksToSeconds(clip.source + Math.max(0, range.start - clip.start)) : 0;
  const until = clip ? from + ticksToSeconds(clip.duration) : 0;
  const prepared = !!clip && ready.split(' ').includes(clip.footageId);
  useEffect(() => {
    const element = audio.current;
    if (!element || kind !== 'screen') return;
    if (phase === 'countdown') {
      element.currentTime = from;
      return;
    }
    if (phase === 'recording') {
      if (element.currentTime < from || element.currentTime > until) element.currentTime = from;
      void element.play().catch(() => undefined);
    } else element.pause();
    if (phase === 'closing' || phase === 'review') element.currentTime = from;
  }, [phase, kind, from, until]);
  if (kind !== 'screen') return <span />;
  return (
    <div className="border-t border-line px-3 py-2 text-xs text-ink-2">
      {clip ? (
        <>
          {prepared ? 'Its voice is heard while you record.' : 'Its voice is still being prepared…'}
          {prepared && (
            <audio
              ref={audio}
              preload="auto"
              src={footageUrl(clip.footageId, 'sound')}
              data-testid="step-voice"
              onTimeUpdate={(e) => e.currentTarget.currentTime > until && e.currentTarget.pause()}
            />
          )}
        </>
      ) : (
        'No voice is recorded for this step yet; the screen is recorded without it.'
      )}
    </div>
  );
}
