import type { ButtonHTMLAttributes } from 'react';

type Look = 'plain' | 'primary' | 'quiet';

const LOOKS: Record<Look, string> = {
  plain: 'border border-line bg-sheet hover:border-ink-2',
  primary: 'border border-action bg-action text-on-action hover:brightness-110',
  quiet: 'border border-transparent hover:border-line',
};

export function Button({
  look = 'plain',
  className = '',
  ...props
}: ButtonHTMLAttributes<HTMLButtonElement> & { look?: Look }) {
  return (
    <button
      type="button"
      {...props}
      className={`inline-flex min-h-7 items-center justify-center gap-1.5 rounded-(--radius) px-2.5 py-0.5 font-medium whitespace-nowrap transition-colors duration-150 disabled:opacity-45 ${LOOKS[look]} ${className}`}
    />
  );
}
