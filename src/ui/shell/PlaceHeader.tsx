import Link from 'next/link';
import type { ReactNode } from 'react';
import { LampToggle } from './LampToggle';

const PLACES = [
  ['Outline', 'outline'],
  ['Record', 'record'],
  ['Edit', 'edit'],
  ['Publish', 'publish'],
] as const;

/** A place of a project. */
export type Place = (typeof PLACES)[number][0];

/** The line at the head of each place of a project. */
export function PlaceHeader({
  id,
  name,
  place,
  children,
}: {
  id: string;
  name: string;
  place: Place;
  children?: ReactNode;
}) {
  return (
    <header className="flex h-10 items-center gap-4 border-b border-line bg-sheet px-3">
      <Link href="/" className="font-bold" aria-label="Vistum, all projects">
        Vistum
      </Link>
      <span className="max-w-56 truncate text-ink-2" title={name}>
        {name}
      </span>
      <nav aria-label="Places" className="flex h-full">
        {PLACES.map(([label, path]) => (
          <Link
            key={path}
            href={`/projects/${id}/${path}`}
            aria-current={label === place ? 'page' : undefined}
            className={`flex h-full items-center border-b-2 px-3 ${label === place ? 'border-action font-semibold' : 'border-transparent text-ink-2 hover:text-ink'}`}
          >
            {label}
          </Link>
        ))}
      </nav>
      <span className="flex-1" />
      {children}
      <LampToggle />
    </header>
  );
}
