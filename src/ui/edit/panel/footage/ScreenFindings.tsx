'use client';
import { Crosshair, ScanText, Spline } from 'lucide-react';
import { cancelAnalysis, requestAnalysis } from '@/contract/analyses';
import { call } from '@/contract/call';
import type { FootageView } from '@/contract/footage';
import { Button } from '../../../parts/Button';
import { tellFault } from '../../../shell/notices-store';
import { useEditor } from '../../store';
import { foundIn, pressesInferred } from './in-words';
import { FoundSoFar } from './FoundSoFar';
import { Progress } from './Progress';

const USUAL_SHAPE = { width: 16, height: 9 };

/** What a summary says of a recording, in a sentence or two. */
function inWords(summary: Readonly<Record<string, unknown>>): string {
  const number = (name: string) => (typeof summary[name] === 'number' ? summary[name] : 0);
  const presses = number('presses');
  const found = number('pointer');
  const pointer = found
    ? `${foundIn(found, 'it')}, ${pressesInferred(presses)}.`
    : 'No pointer was found in the picture. Framings are planned from what happens on the screen.';
  const unsure = found && number('confidence') < 0.5 ? ' It is not sure; look at it once.' : '';
  return pointer + unsure;
}

/** Looking through a screen recording: how far it is, and what came of it. */
export function ScreenFindings({ view }: { view: FootageView }) {
  const row = useEditor((s) =>
    s.analyses.find((a) => a.footageId === view.id && a.kind === 'screen'),
  );
  const isFound = useEditor((s) =>
    s.analyses.some(
      (a) => a.footageId === view.id && a.kind === 'pointer' && a.provenance === 'found',
    ),
  );
  const job = useEditor((s) => s.jobs.find((j) => j.subject === row?.id));
  const select = useEditor((s) => s.select);
  const ask = () =>
    void call(requestAnalysis, { params: { id: view.id }, body: { kind: 'screen' } }).catch(
      tellFault,
    );
  if (row?.status === 'waiting')
    return (
      <div className="grid gap-1">
        <Progress
          share={job?.progress ?? 0}
          label={job?.message || 'Waiting to look at the screen'}
        />
        <FoundSoFar summary={row.summary} shape={view.facts ?? USUAL_SHAPE} />
        <Button
          onClick={() => void call(cancelAnalysis, { params: { id: row.id } }).catch(tellFault)}
        >
          Stop looking
        </Button>
      </div>
    );
  const ready = row?.status === 'ready' && !row.outdated;
  const failed = row?.status === 'failed' && row.error !== 'Cancelled' ? row.error : null;
  return (
    <div className="grid gap-1">
      {ready && (
        <p className="text-xs text-ink-2">
          {view.hasPointer && !isFound
            ? 'The pointer track that was recorded is used.'
            : inWords(row.summary)}
        </p>
      )}
      {(view.hasPointer || ready) && (
        <Button onClick={() => select({ kind: 'path', footageId: view.id })}>
          <Spline size={14} aria-hidden /> Mend the pointer’s path
        </Button>
      )}
      <Button onClick={() => select({ kind: 'private', footageId: view.id })}>
        <ScanText size={14} aria-hidden /> Find private data
      </Button>
      {failed && <p className="text-xs text-fault">{failed}</p>}
      {!ready && (
        <Button onClick={ask}>
          <Crosshair size={14} aria-hidden />{' '}
          {view.hasPointer ? 'Look at what is on the screen' : 'Find the pointer'}
        </Button>
      )}
    </div>
  );
}
