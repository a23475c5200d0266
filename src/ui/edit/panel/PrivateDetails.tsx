'use client';
import { EyeOff, ScanText } from 'lucide-react';
import { useState } from 'react';
import { privateName } from '@/core/private/names';
import type { OpenPlace } from '@/core/private/shown';
import { ticksToSeconds } from '@/core/time/ticks';
import { formatClock } from '@/core/time/timecode';
import { Button } from '../../parts/Button';
import { TextField } from '../../parts/fields';
import { keepText, keptText } from '../../parts/kept';
import { capital } from '../names';
import { useSeek } from '../picture/use-player';
import { useEditor } from '../store';
import { Progress } from './footage/Progress';
import { Heading } from './Heading';
import { usePrivate, type PrivateKnown } from './use-private';

const WORDS = 'vistum.own-words';

/** Looking for private data in a recording, and covering what of it lies bare. */
export function PrivateDetails({ footageId }: { footageId: string }) {
  const name = useEditor((s) => s.sources.footage[footageId]?.name);
  const known = usePrivate(footageId);
  const [words, setWords] = useState(() => keptText(WORDS) ?? '');
  const change = (value: string) => {
    keepText(WORDS, value);
    setWords(value);
  };
  const { row, look, stop } = known;
  const job = useEditor((s) => s.jobs.find((one) => one.subject === row?.id));
  const failed = row?.status === 'failed' && row.error !== 'Cancelled' ? row.error : null;
  return (
    <div className="grid grid-cols-1 gap-3">
      <Heading title="Private data" />
      <p className="text-xs text-ink-2">
        Reads what “{name}” shows, and tells where mail addresses, phone, card and account numbers,
        keys, passwords and words of your own are to be seen. Nothing of it leaves this machine.
      </p>
      <TextField label="Your own words, with commas between" value={words} onDone={change} />
      {failed && <p className="text-xs text-fault">{failed}</p>}
      {row?.status === 'waiting' ? (
        <div className="grid gap-1">
          <Progress
            share={job?.progress ?? 0}
            label={job?.message || 'Waiting to read what it shows'}
          />
          <Button onClick={stop}>Stop reading</Button>
        </div>
      ) : (
        <Button look={known.data ? 'plain' : 'primary'} onClick={() => look(words.split(','))}>
          <ScanText size={14} aria-hidden />{' '}
          {known.data ? 'Look with these words' : 'Look for private data'}
        </Button>
      )}
      {known.data && <Findings footageId={footageId} known={known} />}
    </div>
  );
}

/** What was found and lies bare, to be covered or left. */
function Findings({
  footageId,
  known: { data, places },
}: {
  footageId: string;
  known: PrivateKnown;
}) {
  const seek = useSeek();
  const coverPrivate = useEditor((s) => s.coverPrivate);
  const following = useEditor((s) => Object.keys(s.following).length);
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set());
  const found = data!.found;
  const open = new Map<number, OpenPlace[]>();
  for (const place of places) open.set(place.found, [...(open.get(place.found) ?? []), place]);
  const taken = places.filter((place) => !left.has(place.found));
  const toggle = (index: number) => {
    const next = new Set(left);
    if (!next.delete(index)) next.add(index);
    setLeft(next);
  };
  const count = (n: number) => `${n} ${n === 1 ? 'thing' : 'things'}`;
  const takenCount = new Set(taken.map((place) => place.found)).size;
  return (
    <>
      <p role="status">
        {!found.length
          ? 'Nothing private was found. What is very small, or moves all the time, can’t be read: look through it once yourself.'
          : !open.size
            ? `${capital(count(found.length))} found: none of it is to be seen in the video.`
            : `${count(open.size)} of ${found.length} found can be seen in the video.`}
      </p>
      {following > 0 && (
        <p className="text-xs text-ink-2">
          Looking where {following === 1 ? 'it goes' : `${following} of them go`}; until that is
          known, a cover stays where it is.
        </p>
      )}
      {open.size > 0 && (
        <>
          <Button
            look="primary"
            disabled={!takenCount}
            onClick={() => coverPrivate(footageId, found, taken)}
          >
            <EyeOff size={14} aria-hidden /> Cover {takenCount === 1 ? 'it' : `these ${takenCount}`}
          </Button>
          <ul aria-label="What can be seen" className="grid grid-cols-1 gap-1">
            {[...open].map(([index, shown]) => {
              const { kind, hint } = found[index]!;
              const what = `${capital(privateName(kind))} ${hint}`;
              return (
                <li key={index} className="flex items-start gap-2">
                  <label className="flex min-h-6 min-w-0 grow items-start gap-2">
                    <input
                      type="checkbox"
                      className="mt-1 accent-action"
                      checked={!left.has(index)}
                      onChange={() => toggle(index)}
                    />
                    <span className="min-w-0">
                      <span className="block truncate">{capital(privateName(kind))}</span>
                      <span className="numbers block truncate text-xs text-ink-2">
                        {hint}
                        {shown.length > 1 && `, at ${shown.length} places`}
                      </span>
                    </span>
                  </label>
                  <Button look="quiet" title={`Go to ${what}`} onClick={() => seek(shown[0]!.at)}>
                    <span className="numbers">{formatClock(ticksToSeconds(shown[0]!.at))}</span>
                    <span className="sr-only">: go to {what}</span>
                  </Button>
                </li>
              );
            })}
          </ul>
        </>
      )}
    </>
  );
}
