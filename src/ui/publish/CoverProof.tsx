'use client';
import { ScanEye } from 'lucide-react';
import { call } from '@/contract/call';
import { cancelProof, proofExport, type ExportProof } from '@/contract/exports';
import { formatClock } from '@/core/time/timecode';
import { Button } from '../parts/Button';
import { tellFault } from '../shell/notices-store';

/** More findings than this are told by their number. */
const MOST = 6;

/** Looks under the covers of an export, and tells what can be read there. */
export function CoverProof({
  id,
  proof,
  progress,
}: {
  id: string;
  proof: ExportProof | null;
  /** How far a look is, 0 to 1; null when there is none under way. */
  progress: number | null;
}) {
  const look = () => void call(proofExport, { params: { id } }).catch(tellFault);
  const stop = () => void call(cancelProof, { params: { id } }).catch(tellFault);
  return (
    <div className="mt-1 grid gap-1 text-xs">
      {proof && <Findings proof={proof} />}
      <div>
        {progress === null ? (
          <Button onClick={look}>
            <ScanEye size={14} aria-hidden /> {proof ? 'Look again' : 'Look under the covers'}
          </Button>
        ) : (
          <Button onClick={stop}>Stop looking ({Math.round(progress * 100)} %)</Button>
        )}
      </div>
    </div>
  );
}

function Findings({ proof: { findings, covers, checked, fault } }: { proof: ExportProof }) {
  if (fault !== null) return <p className="text-fault">{fault}</p>;
  if (!covers) return <p className="text-ink-2">There is no cover in it.</p>;
  const unchecked = checked < covers && (
    <p className="text-caution">
      {covers - checked} of {covers} covers could not be looked under: they stand on the frame, or
      lie on nothing that could be told again. Look at them yourself.
    </p>
  );
  if (!findings.length)
    return (
      <>
        {checked > 0 && (
          <p className="text-ink-2">Nothing that a cover is to hide can be read in it.</p>
        )}
        {unchecked}
      </>
    );
  return (
    <>
      <p className="font-semibold text-fault">
        What a cover is to hide can be read in it. Mend it in Edit, and export again.
      </p>
      <ul aria-label="What can be read" className="grid gap-1">
        {findings.slice(0, MOST).map(({ cover, start, end, frames, remedy }) => (
          <li key={`${cover} ${start} ${remedy}`}>
            <span className="numbers font-medium">
              {formatClock(start)} to {formatClock(end)}
            </span>{' '}
            ({frames} {frames === 1 ? 'picture' : 'pictures'}): {remedy}
          </li>
        ))}
      </ul>
      {findings.length > MOST && <p>And {findings.length - MOST} more.</p>}
      {unchecked}
    </>
  );
}
