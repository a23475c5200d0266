'use client';
import { format } from 'date-fns';
import Link from 'next/link';
import { useState } from 'react';
import { CallError, call } from '@/contract/call';
import { openLastGood, type GoodRevision } from '@/contract/projects';
import { Button } from '../parts/Button';
import { tellFault } from '../shell/notices-store';

/**
 * Says why a project was not opened; one that is damaged can be opened as it last was when it could
 * be read.
 */
export function NotOpened({ id, error }: { id: string; error: Error }) {
  const { name, lastGood } = (error instanceof CallError ? error.details : {}) as {
    name?: string;
    lastGood?: GoodRevision;
  };
  const [busy, setBusy] = useState(false);
  const open = async (revision: number) => {
    setBusy(true);
    try {
      await call(openLastGood, { params: { id }, body: { revision } });
      window.location.reload();
    } catch (e) {
      tellFault(e);
      setBusy(false);
    }
  };
  return (
    <main className="mx-auto max-w-2xl px-6 pb-16">
      <header className="mb-8 border-b border-line py-4">
        <Link href="/" className="text-lg font-bold" aria-label="Vistum, all projects">
          Vistum
        </Link>
      </header>
      {name && <h1 className="mb-2 text-xl font-semibold">{name}</h1>}
      <p role="alert" className="mb-4 text-fault">
        {error.message}
      </p>
      {lastGood && (
        <div className="mb-6 border border-line bg-sheet p-4">
          <p className="mb-1">
            Last good revision, of{' '}
            <span className="numbers">
              {format(new Date(lastGood.savedAt), 'd MMM yyyy, HH:mm:ss')} (number{' '}
              {lastGood.revision})
            </span>
          </p>
          <p className="mb-3 text-ink-2">
            It becomes the newest. What can’t be read is kept in the folder “damaged” of the data
            folder; undo begins anew.
          </p>
          <Button look="primary" disabled={busy} onClick={() => void open(lastGood.revision)}>
            {busy ? 'Opening…' : 'Open the last good revision'}
          </Button>
        </div>
      )}
      <Link className="text-action underline" href="/">
        Back to Projects
      </Link>
    </main>
  );
}
