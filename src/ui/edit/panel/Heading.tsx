import type { ReactNode } from 'react';

export function Heading({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <div className="mb-3 flex items-center justify-between gap-2">
      <h2 className="truncate text-base font-semibold">{title}</h2>
      <span className="flex gap-1">{children}</span>
    </div>
  );
}
