'use client';
import { useEffect, useState } from 'react';
import { colorOver, outlineFor } from '@/core/callout/beneath';
import { ENOUGH, shownRatio } from '@/core/callout/contrast';
import type { Callout } from '@/core/project/model';
import { Button } from '../../parts/Button';
import { useEditor, useSession, useTransport } from '../store';

/** It is measured once nothing was changed for so long, in ms. */
const RESTS = 600;

/** Tells where a callout is hard to tell from what lies beneath it, and what would help. */
export function CalloutBeneath({ callout }: { callout: Callout }) {
  const { id } = callout;
  const session = useSession();
  const apply = useEditor((s) => s.apply);
  const project = useEditor((s) => s.project);
  const playing = useTransport((t) => t.rate !== 0);
  const color = colorOver(callout);
  // Until it is measured again what was found before stands, so that nothing jumps under the hand.
  const [ratio, setRatio] = useState<number | null>(null);
  useEffect(() => {
    if (!color || playing) return;
    let stale = false;
    const timer = setTimeout(() => {
      void session.contrastBeneath(id).then((found) => {
        if (!stale) setRatio(found);
      });
    }, RESTS);
    return () => {
      stale = true;
      clearTimeout(timer);
    };
  }, [session, project, id, color, playing]);
  if (!color || ratio === null || ratio >= ENOUGH) return null;
  const isText = callout.kind === 'text';
  const outline = outlineFor(callout, color);
  return (
    <div className="grid gap-1" role="status">
      <p className="text-xs">
        Where it is seen least it differs from what lies beneath by {shownRatio(ratio)} only; from{' '}
        {shownRatio(ENOUGH)} on it is told easily.
      </p>
      <div className="flex flex-wrap gap-1">
        <Button onClick={() => apply('change-callout', { id, change: outline })}>
          Give it an outline
        </Button>
        {isText && (
          <Button onClick={() => apply('change-callout', { id, change: { ground: true } })}>
            Give it a ground
          </Button>
        )}
      </div>
    </div>
  );
}
