'use client';
import { useEffect } from 'react';
import { Button } from '@/ui/parts/Button';

/** Stands for a page that broke; what was edited is saved by itself. */
export default function Broken({ error, reset }: { error: Error; reset: () => void }) {
  useEffect(() => console.error(error), [error]);
  return (
    <main className="mx-auto max-w-2xl px-6 py-16">
      <h1 className="mb-2 text-xl font-semibold">This page has stopped</h1>
      <p role="alert" className="mb-4">
        A fault in Vistum stopped it. Your project is saved up to the last moment that the page told
        “saved”.
      </p>
      <span className="flex gap-2">
        <Button look="primary" onClick={reset}>
          Try again
        </Button>
        <Button onClick={() => window.location.assign('/')}>Back to Projects</Button>
      </span>
    </main>
  );
}
