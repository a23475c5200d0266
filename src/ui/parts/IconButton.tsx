'use client';
import type { LucideIcon } from 'lucide-react';
import { Tooltip } from 'radix-ui';
import { shownKeys } from '../keys/shown';

interface Props {
  readonly icon: LucideIcon;
  readonly label: string;
  readonly keys?: string;
  readonly onClick: () => void;
  readonly disabled?: boolean;
  readonly pressed?: boolean;
  readonly className?: string;
}

export function IconButton({
  icon: Icon,
  label,
  keys,
  onClick,
  disabled,
  pressed,
  className = '',
}: Props) {
  return (
    <Tooltip.Root>
      <Tooltip.Trigger asChild>
        <button
          type="button"
          aria-label={label}
          aria-pressed={pressed}
          disabled={disabled}
          onClick={onClick}
          className={`inline-flex size-7 shrink-0 items-center justify-center rounded-(--radius) border transition-colors duration-150 disabled:opacity-40 ${pressed ? 'border-action text-action' : 'border-transparent hover:border-line'} ${className}`}
        >
          <Icon size={16} aria-hidden />
        </button>
      </Tooltip.Trigger>
      <Tooltip.Portal>
        <Tooltip.Content
          sideOffset={4}
          className="z-50 border border-line bg-sheet px-2 py-1 text-ink shadow"
        >
          {label}
          {keys && <span className="numbers ml-2 text-ink-2">{shownKeys(keys)}</span>}
        </Tooltip.Content>
      </Tooltip.Portal>
    </Tooltip.Root>
  );
}
