'use client';
import { forwardRef, useEffect, useRef, useState } from 'react';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly onDone: (value: string) => void;
  readonly placeholder: string;
  readonly oneLine?: boolean;
  readonly strong?: boolean;
  readonly small?: boolean;
  readonly 'data-narration'?: number;
}

const PAUSE_MS = 700;

/** A text that grows with what is in it, and is taken over when one pauses or leaves. */
export const DraftArea = forwardRef<HTMLTextAreaElement, Props>(function DraftArea(
  { label, value, onDone, placeholder, oneLine, strong, small, ...more },
  ref,
) {
  const [draft, setDraft] = useState<string | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const latest = useRef({ draft, value, onDone });
  useEffect(() => {
    latest.current = { draft, value, onDone };
  });
  const done = () => {
    clearTimeout(timer.current);
    const { draft: text, value: before, onDone: take } = latest.current;
    if (text !== null && text !== before) take(text);
  };
  // A row that is scrolled out of sight keeps what was typed in it.
  useEffect(() => () => done(), []);
  return (
    <textarea
      ref={ref}
      {...more}
      aria-label={label}
      dir="auto"
      rows={1}
      value={draft ?? value}
      placeholder={placeholder}
      onChange={(e) => {
        setDraft(oneLine ? e.target.value.replace(/\n/g, ' ') : e.target.value);
        clearTimeout(timer.current);
        timer.current = setTimeout(done, PAUSE_MS);
      }}
      onBlur={() => {
        done();
        setDraft(null);
      }}
      onKeyDown={(e) => {
        if (oneLine && e.key === 'Enter' && !e.altKey) e.preventDefault();
      }}
      className={`field-sizing-content max-h-[40vh] w-full resize-none rounded-(--radius) border border-transparent px-2 py-1 hover:border-line focus:border-line focus:bg-sheet ${strong ? 'font-semibold' : ''} ${small ? 'text-xs text-ink-2' : ''} ${oneLine ? '' : small ? '' : 'min-h-12 bg-sheet/60'}`}
    />
  );
});
