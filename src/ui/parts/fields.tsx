'use client';
import { RotateCcw } from 'lucide-react';
import {
  useId,
  useLayoutEffect,
  useRef,
  useState,
  type ChangeEvent,
  type KeyboardEvent,
  type ReactNode,
} from 'react';

const count = (n: number): string => n.toLocaleString('en');

/** A label beside its control. */
export function Field({
  label,
  children,
  hint,
  fault,
}: {
  label: string;
  children: (id: string) => ReactNode;
  hint?: string;
  /** Why what the control has is not taken. */
  fault?: string | null;
}) {
  const id = useId();
  return (
    <div className="grid grid-cols-[var(--label-width,7.5rem)_minmax(0,1fr)] items-center gap-x-2 gap-y-0.5">
      <label htmlFor={id} className="text-ink-2">
        {label}
      </label>
      <div className="min-w-0">{children(id)}</div>
      {hint && <p className="col-start-2 text-xs text-ink-2">{hint}</p>}
      {fault && (
        <p role="alert" className="col-start-2 text-xs text-fault">
          {fault}
        </p>
      )}
    </div>
  );
}

export const inputLook = 'w-full rounded-(--radius) border border-line bg-sheet px-2 py-1';

/**
 * A number while it is typed: it counts at Enter or when the field is left, and not at all after
 * Escape or when it is none.
 */
function useTypedNumber(shown: string, onTyped: (number: number) => void) {
  const [draft, setDraft] = useState<string | null>(null);
  const forget = () => setDraft(null);
  const done = () => {
    const number = Number(draft?.replace(',', '.'));
    if (draft?.trim() && Number.isFinite(number)) onTyped(number);
    forget();
  };
  return {
    forget,
    input: {
      value: draft ?? shown,
      'data-draft': draft === null ? undefined : '',
      onChange: (e: ChangeEvent<HTMLInputElement>) => setDraft(e.target.value),
      onBlur: done,
      onKeyDown: (e: KeyboardEvent) => {
        if (e.key === 'Enter') done();
        if (e.key === 'Escape' && draft !== null) {
          forget();
          e.stopPropagation();
        }
      },
    },
  };
}

/**
 * A number that is dragged, stepped with arrows or typed. What is typed is in the unit that is
 * shown.
 */
export function SliderField({
  label,
  value,
  min,
  max,
  step,
  unit,
  onChange,
  show = String,
  factor = 1,
  usual,
}: {
  label: string;
  value: number;
  min: number;
  max: number;
  step: number;
  unit: string;
  onChange: (value: number) => void;
  show?: (value: number) => string;
  /** The number that is shown for one of the value. */
  factor?: number;
  /** The value that it has unless another is set; it can be set back to it. */
  usual?: number;
}) {
  const within = (wanted: number) => Math.min(max, Math.max(min, wanted));
  const typed = useTypedNumber(show(value), (number) => onChange(within(number / factor)));
  const differs = usual !== undefined && Math.abs(value - usual) > step / 2;
  return (
    <Field label={label}>
      {(id) => (
        <div className="flex items-center gap-1.5">
          <input
            id={id}
            type="range"
            min={min}
            max={max}
            step={step}
            value={value}
            onChange={(e) => onChange(Number(e.target.value))}
            className="w-0 max-w-40 min-w-8 flex-1 accent-(--action)"
          />
          <input
            type="text"
            inputMode="decimal"
            aria-label={`${label}, number`}
            className="numbers w-10 shrink-0 rounded-(--radius) border border-transparent bg-transparent px-0.5 text-right text-xs hover:border-line focus:bg-sheet"
            {...typed.input}
            onFocus={(e) => e.target.select()}
            onKeyDown={(e) => {
              typed.input.onKeyDown(e);
              const by = { ArrowUp: 1, ArrowDown: -1 }[e.key];
              if (!by) return;
              e.preventDefault();
              const times = e.shiftKey ? 10 : 1;
              typed.forget();
              onChange(within(value + by * step * times));
            }}
          />
          <span className="numbers shrink-0 text-xs">{unit}</span>
          {usual !== undefined && differs && (
            <button
              type="button"
              className="grid size-6 shrink-0 place-items-center text-ink-2 hover:text-ink"
              aria-label={`Set ${label} back to ${show(usual)} ${unit}`}
              title={`Set back to ${show(usual)} ${unit}`}
              onClick={() => onChange(usual)}
            >
              <RotateCcw size={12} aria-hidden />
            </button>
          )}
        </div>
      )}
    </Field>
  );
}

export function ColorField({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (value: string) => void;
}) {
  return (
    <Field label={label}>
      {(id) => (
        <div className="flex items-center gap-2">
          <input
            id={id}
            type="color"
            value={value}
            onChange={(e) => onChange(e.target.value)}
            className="h-7 w-12 border border-line bg-sheet"
          />
          <span className="numbers text-xs text-ink-2">{value}</span>
        </div>
      )}
    </Field>
  );
}

export function CheckField({
  label,
  value,
  onChange,
}: {
  label: string;
  value: boolean;
  onChange: (value: boolean) => void;
}) {
  return (
    <Field label={label}>
      {(id) => (
        <input
          id={id}
          type="checkbox"
          checked={value}
          onChange={(e) => onChange(e.target.checked)}
          className="size-4 accent-(--action)"
        />
      )}
    </Field>
  );
}

export function SelectField<T extends string>({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: T;
  options: readonly (readonly [T, string])[];
  onChange: (value: T) => void;
}) {
  return (
    <Field label={label}>
      {(id) => (
        <select
          id={id}
          value={value}
          onChange={(e) => onChange(e.target.value as T)}
          className={inputLook}
        >
          {options.map(([key, text]) => (
            <option key={key} value={key}>
              {text}
            </option>
          ))}
        </select>
      )}
    </Field>
  );
}

/** Texts that are too long to be taken over, by the field and what they are of. */
const tooLong = new Map<string, string>();

/** The characters of a text that has more than it may; 0 for any other. */
function lengthBeyond(text: string, most: number): number {
  // A character is one or two units, which need not be counted for most texts.
  const length = text.length <= most ? 0 : [...text].length;
  return length > most ? length : 0;
}

interface TextFieldProps {
  label: string;
  value: string;
  onDone: (value: string) => void;
  lines?: number;
  /** Characters that it may have; a longer one is not taken, and stays to be shortened. */
  most?: number;
  /** Id of what it is a text of: one that is too long is there again when that is shown again. */
  of?: string;
  /** Takes the keys, with all of its text selected. */
  focus?: boolean;
  onFocused?: () => void;
}

/**
 * A text that is taken over when the field is left or Enter is pressed; Escape takes back what was
 * typed.
 */
export function TextField(props: TextFieldProps) {
  // What is typed for one thing is none of the next one's.
  return <TextInput key={props.of} {...props} />;
}

function TextInput({
  label,
  value,
  onDone,
  lines = 1,
  most = Infinity,
  of,
  focus = false,
  onFocused,
}: TextFieldProps) {
  const name = of && `${label} of ${of}`;
  const [draft, setState] = useState<string | null>((name && tooLong.get(name)) ?? null);
  const setDraft = (text: string | null) => {
    setState(text);
    if (!name) return;
    if (text !== null && lengthBeyond(text, most)) tooLong.set(name, text);
    else tooLong.delete(name);
  };
  const box = useRef<HTMLTextAreaElement & HTMLInputElement>(null);
  // Before the next key can come.
  useLayoutEffect(() => {
    if (!focus) return;
    box.current?.focus();
    box.current?.select();
    onFocused?.();
  }, [focus, onFocused]);
  const length = draft === null ? 0 : lengthBeyond(draft, most);
  const isLong = length > 0;
  const done = () => {
    if (isLong) return;
    if (draft !== null && draft !== value) onDone(draft);
    setDraft(null);
  };
  const shared = {
    value: draft ?? value,
    'data-draft': draft === null ? undefined : '',
    'aria-invalid': isLong || undefined,
    onChange: (e: { target: { value: string } }) => setDraft(e.target.value),
    onBlur: done,
    onKeyDown: (e: React.KeyboardEvent<HTMLElement>) => {
      if (e.key === 'Enter' && lines === 1) done();
      if (e.key === 'Escape') {
        setDraft(null);
        e.stopPropagation();
      }
    },
    className: inputLook,
  };
  return (
    <Field
      label={label}
      fault={
        isLong
          ? `Up to ${count(most)} characters; these are ${count(length)}. Shorten it, or press Esc.`
          : null
      }
    >
      {(id) =>
        lines > 1 ? (
          <textarea ref={box} id={id} rows={lines} {...shared} />
        ) : (
          <input ref={box} id={id} {...shared} />
        )
      }
    </Field>
  );
}

/**
 * A number with its unit, taken over when the field is left or Enter is pressed; what is no number
 * is put back.
 */
export function NumberField({
  label,
  value,
  unit,
  min,
  max,
  step,
  onDone,
}: {
  label: string;
  value: number;
  unit: string;
  min: number;
  max: number;
  step: number;
  onDone: (value: number) => void;
}) {
  const typed = useTypedNumber(String(value), (number) =>
    onDone(Math.min(max, Math.max(min, number))),
  );
  return (
    <Field label={label}>
      {(id) => (
        <span className="flex items-center gap-2">
          <input
            id={id}
            type="number"
            min={min}
            max={max}
            step={step}
            className={`${inputLook} numbers`}
            {...typed.input}
          />
          <span className="numbers min-w-8 text-xs">{unit}</span>
        </span>
      )}
    </Field>
  );
}
