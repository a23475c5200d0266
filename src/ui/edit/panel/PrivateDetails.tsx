'use client';
import { EyeOff, ScanText } from 'lucide-react';
import { useState } from 'react';
import type { PrivateFound } from '@/core/private/log';
import { privateName } from '@/core/private/names';
import { PRIVATE_KINDS } from '@/core/private/patterns';
import { timesTyped } from '@/core/private/typed';
import type { OpenPlace } from '@/core/private/shown';
import { trackOf } from '@/core/project/track-of';
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
  const { row, stop } = known;
  const look = useEditor((s) => s.lookForPrivate);
  const job = useEditor((s) => s.jobs.find((one) => one.subject === row?.id));
  const failed = row?.status === 'failed' && row.error !== 'Cancelled' ? row.error : null;
  return (
    <div className="grid grid-cols-1 gap-3">
      <Heading title="Private data" />
      <p className="text-xs text-ink-2">
        Reads what “{name}” shows, and tells where mail addresses, phone, card and account numbers,
        keys, passwords and words of your own are to be seen. Nothing of it leaves this machine.
      </p>
      <Typed footageId={footageId} />
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
        <Button
          look={known.data ? 'plain' : 'primary'}
          onClick={() => void look(footageId, words.split(','))}
        >
          <ScanText size={14} aria-hidden /> {known.data ? 'Look again' : 'Look for private data'}
        </Button>
      )}
      {row && known.data && <Findings key={row.id} footageId={footageId} known={known} />}
    </div>
  );
}

/** Says that private data was typed, which keycaps leave out. */
function Typed({ footageId }: { footageId: string }) {
  const track = useEditor((s) => trackOf(s.project, s.sources, footageId));
  const times = track ? timesTyped(track) : 0;
  if (!times) return null;
  return (
    <p className="text-xs">
      Private data was typed {times === 1 ? 'once' : `${times} times`}. The keycaps of the pointer
      looks never show it.
    </p>
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
  const coverPrivate = useEditor((s) => s.coverPrivate);
  const followed = useEditor((s) => s.following);
  const stopFollowing = useEditor((s) => s.stopFollowing);
  // Others that go along with something are none of this list.
  const going = Object.keys(followed).filter((id) => followed[id]!.also);
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set());
  const found = data!.found;
  const open = new Map<number, OpenPlace[]>();
  for (const place of places) open.set(place.found, [...(open.get(place.found) ?? []), place]);
  const kinds = PRIVATE_KINDS.map((kind) => ({
    kind,
    items: [...open.keys()].filter((index) => found[index]!.kind === kind),
  })).filter(({ items }) => items.length);
  const taken = places.filter((place) => !left.has(place.found));
  const takenCount = new Set(taken.map((place) => place.found)).size;
  const set = (items: readonly number[], isTaken: boolean) =>
    setLeft(new Set([...left, ...items].filter((one) => !isTaken || !items.includes(one))));
  return (
    <>
      <p role="status">{summary(found.length, open.size)}</p>
      {going.length > 0 && (
        <div className="grid gap-1">
          <p className="text-xs text-ink-2">
            Looking where {going.length === 1 ? 'it goes' : `${going.length} of them go`}; until
            that is known, a cover stays where it is.
          </p>
          <Button onClick={() => going.forEach(stopFollowing)}>Stop looking</Button>
        </div>
      )}
      {open.size > 0 && (
        <Button
          look="primary"
          disabled={!takenCount}
          onClick={() => coverPrivate(footageId, found, taken)}
        >
          <EyeOff size={14} aria-hidden /> Cover {takenCount === 1 ? 'it' : `these ${takenCount}`}
        </Button>
      )}
      {kinds.map(({ kind, items }) => (
        <fieldset key={kind} className="grid grid-cols-1">
          <legend className="sr-only">{capital(privateName(kind))}</legend>
          <label className="flex min-h-6 items-center gap-2 border-b border-line font-semibold">
            <input
              type="checkbox"
              className="accent-action"
              checked={items.every((index) => !left.has(index))}
              onChange={(event) => set(items, event.target.checked)}
            />
            {capital(privateName(kind))}: {items.length}
          </label>
          <ul className="grid grid-cols-1">
            {items.map((index) => (
              <Item
                key={index}
                found={found[index]!}
                shown={open.get(index)!}
                taken={!left.has(index)}
                onChange={(isTaken) => set([index], isTaken)}
              />
            ))}
          </ul>
        </fieldset>
      ))}
    </>
  );
}

/** How much was found, in a sentence. */
function summary(found: number, open: number): string {
  if (!found)
    return (
      'Nothing private was found. What is very small, or moves all the time, can’t be read: look ' +
      'through it once yourself.'
    );
  if (!open) return `None of the ${found} found is to be seen in the video.`;
  return `${open} of ${found} found can be seen in the video.`;
}

/** One thing that can be seen: whether it is to be covered, and where it is. */
function Item({
  found: { kind, hint },
  shown,
  taken,
  onChange,
}: {
  found: PrivateFound;
  shown: readonly OpenPlace[];
  taken: boolean;
  onChange: (taken: boolean) => void;
}) {
  const seek = useSeek();
  const { at } = shown[0]!;
  return (
    <li className="flex items-center gap-2">
      <label className="flex min-h-6 min-w-0 grow items-center gap-2 pl-5">
        <input
          type="checkbox"
          className="accent-action"
          checked={taken}
          onChange={(event) => onChange(event.target.checked)}
        />
        <span className="numbers min-w-0 truncate">
          {hint}
          {shown.length > 1 && <span className="text-ink-2">, {shown.length} places</span>}
        </span>
      </label>
      <Button look="quiet" onClick={() => seek(at)}>
        <span className="numbers">{formatClock(ticksToSeconds(at))}</span>
        <span className="sr-only">
          : go to {privateName(kind)} {hint}
        </span>
      </Button>
    </li>
  );
}
