'use client';
import { X } from 'lucide-react';
import { Dialog as Radix } from 'radix-ui';
import { useEffect, useRef, useState } from 'react';
import { countWords } from '@/core/words/count';
import { useEditor } from '../edit/store';
import { isPress } from '../keys/press';
import { useKeyScope } from '../keys/use-key-scope';
import { Button } from '../parts/Button';

const READ_LINE = 0.35;

/**
 * The narration in large type that rolls at reading speed; mirrored for a glass before the camera.
 */
export function Prompter({ onClose }: { onClose: () => void }) {
  const steps = useEditor((s) => s.project.steps);
  const [speed, setSpeed] = useState(useEditor((s) => s.project.script.wordsPerMinute));
  const [size, setSize] = useState(48);
  const [mirrored, setMirrored] = useState(false);
  const [running, setRunning] = useState(false);
  const scroller = useRef<HTMLDivElement>(null);
  const text = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!running) return;
    const words = steps.reduce((sum, s) => sum + countWords(s.narration), 0);
    let last = performance.now();
    let at = scroller.current!.scrollTop;
    let frame = 0;
    const roll = (now: number) => {
      const box = scroller.current;
      const height = text.current?.offsetHeight ?? 0;
      if (!box) return;
      // Pixels for a word, words for a second.
      at += ((now - last) / 1000) * (speed / 60) * (height / Math.max(1, words));
      last = now;
      box.scrollTop = at;
      if (at >= box.scrollHeight - box.clientHeight) return setRunning(false);
      frame = requestAnimationFrame(roll);
    };
    frame = requestAnimationFrame(roll);
    return () => cancelAnimationFrame(frame);
  }, [running, speed, steps]);
  useKeyScope(
    (event) => {
      const act = (name: string, work: () => void) => {
        if (!isPress(event, name)) return;
        event.preventDefault();
        work();
      };
      act('Escape', onClose);
      if (event.target instanceof HTMLInputElement) return;
      act('Space', () => setRunning((now) => !now));
      act('ArrowUp', () => setSpeed((now) => Math.min(300, now + 5)));
      act('ArrowDown', () => setSpeed((now) => Math.max(40, now - 5)));
      act('M', () => setMirrored((now) => !now));
    },
    { modal: true },
  );
  return (
    <Radix.Root open onOpenChange={onClose}>
      <Radix.Portal>
        <Radix.Content
          aria-describedby={undefined}
          className="fixed inset-0 z-50 grid grid-rows-[1fr_48px] bg-black text-white"
        >
          <Radix.Title className="sr-only">Prompter</Radix.Title>
          <div
            ref={scroller}
            className="relative overflow-auto"
            role="region"
            aria-label="Script"
            tabIndex={0}
            style={mirrored ? { transform: 'scaleX(-1)' } : undefined}
            data-testid="prompter-text"
          >
            <div style={{ height: `${READ_LINE * 100}vh` }} />
            <div
              ref={text}
              className="mx-auto max-w-4xl px-8 leading-[1.45] font-semibold"
              style={{ fontSize: size }}
            >
              {steps.map((step, i) => (
                <section key={step.id} className="mb-[0.8em]">
                  {step.title && (
                    <h3 className="text-[0.5em] font-normal opacity-60">
                      {i + 1} {step.title}
                    </h3>
                  )}
                  <p dir="auto" className="whitespace-pre-line">
                    {step.narration}
                  </p>
                </section>
              ))}
            </div>
            <div style={{ height: '70vh' }} />
          </div>
          <div
            className="pointer-events-none fixed left-2 text-2xl"
            style={{ top: `${READ_LINE * 100}vh` }}
            aria-hidden
          >
            ▸
          </div>
          <div className="flex items-center gap-4 bg-sheet px-4 text-ink">
            <Button look="primary" onClick={() => setRunning(!running)}>
              {running ? 'Stop rolling' : 'Roll'} <kbd className="text-xs">Space</kbd>
            </Button>
            <Dial
              label="Speed"
              value={speed}
              min={40}
              max={300}
              step={5}
              unit="wpm"
              onChange={setSpeed}
            />
            <Dial
              label="Letters"
              value={size}
              min={20}
              max={120}
              step={2}
              unit="px"
              onChange={setSize}
            />
            <label className="flex items-center gap-1.5">
              <input
                type="checkbox"
                checked={mirrored}
                onChange={(e) => setMirrored(e.target.checked)}
                className="size-4 accent-(--action)"
              />
              Mirrored <kbd className="text-xs text-ink-2">M</kbd>
            </label>
            <span className="flex-1" />
            <Button onClick={onClose}>
              <X size={14} aria-hidden /> Close
            </Button>
          </div>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}

function Dial(props: {
  label: string;
  value: number;
  min: number;
  max: number;
  step: number;
  unit: string;
  onChange: (value: number) => void;
}) {
  const { label, value, unit, onChange, ...range } = props;
  return (
    <label className="flex items-center gap-2">
      {label}
      <input
        type="range"
        {...range}
        value={value}
        onChange={(e) => onChange(Number(e.target.value))}
        className="w-32 accent-(--action)"
      />
      <span className="numbers w-16 text-xs">
        {value} {unit}
      </span>
    </label>
  );
}
