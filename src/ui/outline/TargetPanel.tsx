'use client';
import { useState } from 'react';
import { CAPTION_NEEDS, targetOf, TARGETS, type CaptionNeed } from '@/core/project/targets';
import { framesPerSecond } from '@/core/time/ticks';
import { useEditor } from '../edit/store';
import { USUAL_RATES } from '@/core/time/rates';
import { inputLook, SelectField, SliderField } from '../parts/fields';
import { CaptureAdvice } from './CaptureAdvice';

const CAPTION_WORDS: Record<CaptionNeed, string> = {
  none: 'none',
  optional: 'welcome',
  needed: 'needed',
};

/** Where the video will be shown, what that asks for, and what size to capture for it. */
export function TargetPanel() {
  const target = useEditor((s) => s.project.target);
  const canvas = useEditor((s) => s.project.canvas);
  const speed = useEditor((s) => s.project.script.wordsPerMinute);
  const apply = useEditor((s) => s.apply);
  const usual = targetOf(target.id);
  const rate = USUAL_RATES.find(
    ([, r]) => r.num * canvas.frameRate.den === canvas.frameRate.num * r.den,
  )?.[0];
  const overridden =
    canvas.width !== usual.width ||
    canvas.height !== usual.height ||
    target.loudness !== usual.loudness ||
    target.captions !== usual.captions;
  return (
    <aside className="min-h-0 overflow-auto border-l border-line p-3" aria-label="Target">
      <h2 className="mb-2 font-semibold">Target</h2>
      <div className="grid gap-2">
        <SelectField
          label="Shown on"
          value={target.id}
          options={TARGETS.map((t) => [t.id, t.name] as const)}
          onChange={(id) => apply('set-target', { id })}
        />
        <p className="text-xs text-ink-2">{usual.reason}</p>
        <div className="grid grid-cols-2 gap-2">
          <SideField
            label="Width (px)"
            value={canvas.width}
            onDone={(width) => apply('change-canvas', { change: { width } })}
          />
          <SideField
            label="Height (px)"
            value={canvas.height}
            onDone={(height) => apply('change-canvas', { change: { height } })}
          />
        </div>
        <SelectField
          label="Frame rate"
          value={rate ?? 'own'}
          options={[
            ...(rate
              ? []
              : [['own', `${framesPerSecond(canvas.frameRate).toFixed(2)} fps`] as const]),
            ...USUAL_RATES.map(([label]) => [label, `${label} fps`] as const),
          ]}
          onChange={(label) => {
            const found = USUAL_RATES.find(([l]) => l === label);
            if (found) apply('change-canvas', { change: { frameRate: { ...found[1] } } });
          }}
        />
        <SliderField
          label="Loudness goal"
          value={target.loudness}
          min={-28}
          max={-12}
          step={1}
          unit="LUFS"
          onChange={(loudness) => apply('change-target', { change: { loudness } }, true)}
        />
        <SelectField
          label="Captions"
          value={target.captions}
          options={CAPTION_NEEDS.map((need) => [need, CAPTION_WORDS[need]] as const)}
          onChange={(captions) => apply('change-target', { change: { captions } })}
        />
        {overridden && (
          <button
            className="justify-self-start text-xs text-action underline"
            onClick={() => apply('set-target', { id: target.id })}
          >
            Back to what is usual there
          </button>
        )}
        <SliderField
          label="Reading speed"
          value={speed}
          min={80}
          max={220}
          step={5}
          unit="wpm"
          onChange={(value) => apply('set-reading-speed', { wordsPerMinute: value }, true)}
        />
      </div>
      <CaptureAdvice />
    </aside>
  );
}

function SideField({
  label,
  value,
  onDone,
}: {
  label: string;
  value: number;
  onDone: (value: number) => void;
}) {
  const [draft, setDraft] = useState<string | null>(null);
  const done = () => {
    const side = Math.round(Number(draft) / 2) * 2;
    if (draft !== null && side >= 16 && side <= 7680 && side !== value) onDone(side);
    setDraft(null);
  };
  return (
    <label className="grid gap-0.5 text-xs text-ink-2">
      {label}
      <input
        type="number"
        min={16}
        max={7680}
        step={2}
        value={draft ?? value}
        onChange={(e) => setDraft(e.target.value)}
        onBlur={done}
        onKeyDown={(e) => e.key === 'Enter' && done()}
        className={`${inputLook} numbers text-ink`}
      />
    </label>
  );
}
