'use client';
import { ChevronDown, ChevronRight, MousePointer2, Play, Plus, Trash2, Unplug } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { call } from '@/contract/call';
import { attachPointer, type FootageView } from '@/contract/footage';
import type { ActiveJob } from '@/contract/jobs';
import { lookOf } from '@/core/project/query';
import { ROLES, type Role } from '@/core/project/sources';
import { findMismatches } from '@/core/scale/mismatch';
import { framesPerSecond, ticksToSeconds } from '@/core/time/ticks';
import { formatClock, formatTimecode } from '@/core/time/timecode';
import { Button } from '../../../parts/Button';
import { bytesInWords } from '../../../parts/bytes';
import { TextField } from '../../../parts/fields';
import { IconButton } from '../../../parts/IconButton';
import { tell, tellFault } from '../../../shell/notices-store';
import { useSeek } from '../../picture/use-player';
import { useEditor } from '../../store';
import { FOOTAGE_DRAG } from '../../timeline/use-footage-drop';
import { useUploads } from '../../upload-store';
import { Progress } from './Progress';
import { ScreenFindings } from './ScreenFindings';
import { Scrub } from './Scrub';
import { useFootageActions } from './use-footage-actions';

function describe({ facts, inPoint, outPoint }: FootageView): string {
  if (!facts) return '';
  const still = facts.kind === 'image';
  const parts = [still ? 'still' : formatClock(ticksToSeconds(facts.duration))];
  if (!still && (inPoint !== null || outPoint !== null))
    parts[0] += ` (${formatClock(ticksToSeconds((outPoint ?? facts.duration) - (inPoint ?? 0)))} placed)`;
  if (facts.hasVideo) parts.push(`${facts.width}×${facts.height} px`);
  if (facts.frameRate)
    parts.push(
      `${Number(framesPerSecond(facts.frameRate).toFixed(2))} fps${facts.variableRate ? ', varies' : ''}`,
    );
  if (facts.hasAudio) parts.push(facts.channels === 1 ? 'mono' : 'stereo');
  return parts.join(' · ');
}

/** What is being done with a recording, and how far it is. */
const jobInWords = (job: ActiveJob | undefined): string =>
  job?.progress ? `${job.message}, ${Math.round(job.progress * 100)} %` : 'Waiting';

interface Props {
  readonly view: FootageView;
  readonly grid: boolean;
  readonly used: boolean;
  readonly chosen: boolean;
  /** What is taken along when this is dragged. */
  readonly dragged: readonly string[];
  readonly onChoose: () => void;
  readonly onPreview: () => void;
  readonly onDelete: () => void;
}

/** One recording: a row or a card, that opens to its details. */
export function FootageItem({
  view,
  grid,
  used,
  chosen,
  dragged,
  onChoose,
  onPreview,
  onDelete,
}: Props) {
  const job = useEditor((s) => s.jobs.find((j) => j.subject === view.id));
  const looking = useEditor((s) => {
    const row = s.analyses.find((a) => a.footageId === view.id && a.kind === 'screen');
    return row?.status === 'waiting' ? s.jobs.find((j) => j.subject === row.id) : undefined;
  });
  const [open, setOpen] = useState(false);
  const { place } = useFootageActions();
  const ready = view.status === 'ready';
  // What it is is enough to place and cut it.
  const known = view.facts !== null && view.status !== 'failed';
  return (
    <li
      draggable={known}
      onDragStart={(e) => {
        e.dataTransfer.setData(FOOTAGE_DRAG, JSON.stringify(dragged));
        // Keys held while letting go say how it is placed; a browser lets nothing go where they ask
        // for what is not allowed.
        e.dataTransfer.effectAllowed = 'all';
      }}
      className={grid ? 'border border-line p-1.5' : 'border-b border-line py-1.5'}
    >
      <div className={grid ? 'grid gap-1' : 'flex items-center gap-2'}>
        <span className="flex items-center gap-1.5">
          <input
            type="checkbox"
            aria-label={`Choose ${view.name}`}
            checked={chosen}
            disabled={!known}
            onChange={onChoose}
            className="size-3.5 accent-(--action)"
          />
          <Scrub view={view} height={grid ? 96 : 36} />
        </span>
        <span className="min-w-0 flex-1">
          <button
            className="flex w-full items-center gap-1 text-left font-medium"
            aria-expanded={open}
            title={view.name}
            onClick={() => setOpen(!open)}
          >
            {open ? (
              <ChevronDown size={13} aria-hidden className="shrink-0" />
            ) : (
              <ChevronRight size={13} aria-hidden className="shrink-0" />
            )}
            <span className="truncate">{view.name}</span>
          </button>
          {view.status === 'failed' ? (
            <span className="block text-xs text-fault">{view.error}</span>
          ) : (
            <>
              {known && (
                <span className="numbers block truncate text-xs text-ink-2" title={describe(view)}>
                  {describe(view)}
                </span>
              )}
              {view.status === 'waiting' && (
                <Progress share={job?.progress ?? 0} label={jobInWords(job)} />
              )}
              {looking && <Progress share={looking.progress} label={looking.message} />}
            </>
          )}
        </span>
        <span className="flex items-center">
          {ready && <IconButton icon={Play} label={`Look at ${view.name}`} onClick={onPreview} />}
          {known && (
            <IconButton
              icon={Plus}
              label={`Place ${view.name} at the end of its lane`}
              onClick={() => place([view.id], 'end')}
            />
          )}
          <IconButton icon={Trash2} label={`Delete ${view.name} from Footage`} onClick={onDelete} />
        </span>
      </div>
      {view.trouble && <Trouble view={view} />}
      {known && <Mismatches view={view} brief={!open} />}
      {open && <Details view={view} used={used} />}
    </li>
  );
}

/** Says that the original is gone or another one, and takes it back. */
function Trouble({ view }: { view: FootageView }) {
  const id = useEditor((s) => s.id);
  const input = useRef<HTMLInputElement>(null);
  return (
    <div className="mt-1 flex items-center gap-2 border border-fault px-2 py-1 text-fault">
      <Unplug size={14} aria-hidden className="shrink-0" />
      <span className="flex-1 text-xs">
        {view.trouble === 'gone'
          ? 'Its file is no longer on the disk. It can be seen in the preview, but not exported.'
          : 'Its file on the disk has changed since it was brought. Exports may differ from the preview.'}
      </span>
      <Button onClick={() => input.current?.click()}>Relink</Button>
      <input
        ref={input}
        type="file"
        className="hidden"
        aria-label={`File for ${view.name}`}
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file) void useUploads.getState().add(id, [file], view.id);
          e.target.value = '';
        }}
      />
    </div>
  );
}

/** Where the recording does not match the project, with remedies of one press. */
function Mismatches({ view, brief }: { view: FootageView; brief: boolean }) {
  const canvas = useEditor((s) => s.project.canvas);
  const look = useEditor((s) => lookOf(s.project, view.id));
  const { remedy } = useFootageActions();
  if (!view.facts) return null;
  const found = findMismatches({ ...view.facts, role: view.role as Role }, canvas);
  const decided = look !== null;
  return found
    .filter((m) => !brief || (m.kind !== 'variable' && !(m.kind === 'shape' && decided)))
    .map((m) => (
      <details
        key={m.kind}
        className={`mt-1 border-l-2 pl-2 text-xs ${m.remedies.length ? 'border-caution' : 'border-line'}`}
      >
        <summary
          className={`cursor-default truncate leading-6 ${m.remedies.length ? 'text-caution' : 'text-ink-2'}`}
        >
          {m.brief}
        </summary>
        <p>{m.text}</p>
        {m.remedies.length > 0 && (
          <span className="mt-1 flex flex-wrap gap-1">
            {m.remedies.map((r) => (
              <Button
                key={r.label}
                aria-pressed={
                  r.kind === 'look'
                    ? (look?.fit ?? 'fit') === r.look.fit && (look?.bars ?? 'plain') === r.look.bars
                    : undefined
                }
                className="text-xs aria-pressed:border-action aria-pressed:text-action"
                onClick={() => remedy(view, r)}
              >
                {r.label}
              </Button>
            ))}
          </span>
        )}
      </details>
    ));
}

function Details({ view, used }: { view: FootageView; used: boolean }) {
  const rate = useEditor((s) => s.project.canvas.frameRate);
  const set = useEditor((s) => s.set);
  const seek = useSeek();
  const { change, usesOf } = useFootageActions();
  const track = useRef<HTMLInputElement>(null);
  const shown = useRef<HTMLDivElement>(null);
  useEffect(() => {
    shown.current?.scrollIntoView({ block: 'nearest' });
  }, []);
  const { facts } = view;
  const uses = used ? usesOf(view.id) : [];
  const attach = async (file: File | undefined) => {
    if (!file) return;
    try {
      await call(attachPointer, { params: { id: view.id }, body: file });
      tell(`${file.name} is being read; its positions will be there in a moment.`);
    } catch (error) {
      tellFault(error);
    }
  };
  const rows: (readonly [string, string])[] = facts
    ? [
        [
          'Picture',
          facts.hasVideo ? `${facts.width}×${facts.height} px, ${facts.videoCodec ?? ''}` : 'none',
        ],
        [
          'Frame rate',
          facts.frameRate
            ? `${Number(framesPerSecond(facts.frameRate).toFixed(3))} fps, ${facts.variableRate ? 'varies' : 'steady'}`
            : 'none',
        ],
        [
          'Sound',
          facts.hasAudio
            ? `${facts.audioCodec ?? ''}, ${facts.channels} ch, ${facts.sampleRate} Hz`
            : 'none',
        ],
        [
          'Colour',
          facts.convertColor
            ? `${facts.convertColor.matrix}, ${facts.convertColor.range}; converted to BT.709`
            : 'BT.709, limited range',
        ],
        [
          'Length',
          facts.kind === 'image' ? 'still' : `${ticksToSeconds(facts.duration).toFixed(2)} s`,
        ],
        ['Size of the file', bytesInWords(view.bytes)],
      ]
    : [];
  return (
    <div ref={shown} className="mt-2 grid gap-2 bg-paper p-2">
      <TextField
        label="Name"
        value={view.name}
        onDone={(name) => void change(view.id, { name: name.trim() || view.name })}
      />
      <TextField
        label="Tags"
        value={view.tags.join(', ')}
        onDone={(text) =>
          void change(view.id, {
            tags: text
              .split(',')
              .map((t) => t.trim())
              .filter(Boolean)
              .slice(0, 20),
          })
        }
      />
      <label className="grid grid-cols-[7.5rem_1fr] items-center gap-x-2">
        <span className="text-ink-2">Role</span>
        <select
          aria-label={`Role of ${view.name}`}
          className="rounded-(--radius) border border-line bg-sheet px-1 py-1"
          value={view.role}
          disabled={view.facts === null}
          onChange={(e) => void change(view.id, { role: e.target.value as Role })}
        >
          {ROLES.map((role) => (
            <option key={role}>{role}</option>
          ))}
        </select>
      </label>
      <dl className="grid grid-cols-[7.5rem_1fr] gap-x-2 text-xs">
        {rows.map(([name, value]) => [
          <dt key={`${name} name`} className="text-ink-2">
            {name}
          </dt>,
          <dd key={name} className="numbers">
            {value}
          </dd>,
        ])}
        <dt className="text-ink-2">Used</dt>
        <dd>
          {uses.length
            ? uses.slice(0, 6).map(({ lane, clip }) => (
                <button
                  key={clip.id}
                  className="numbers mr-2 underline"
                  title={`Select it on ${lane.name}`}
                  onClick={() => {
                    set({ selection: { kind: 'clip', id: clip.id }, also: [] });
                    seek(clip.start);
                  }}
                >
                  {lane.name} {formatTimecode(clip.start, rate)}
                </button>
              ))
            : 'not yet'}
          {uses.length > 6 && <span className="text-ink-2">and {uses.length - 6} more</span>}
        </dd>
      </dl>
      {view.notes.map((note) => (
        <p key={note} className="text-xs text-caution">
          {note}
        </p>
      ))}
      {facts?.kind === 'video' && view.role === 'screen' && view.status === 'ready' && (
        <ScreenFindings view={view} />
      )}
      {facts?.hasVideo && facts.kind === 'video' && view.status === 'ready' && (
        <Button onClick={() => track.current?.click()}>
          <MousePointer2 size={14} aria-hidden />{' '}
          {view.hasPointer ? 'Replace the pointer track' : 'Attach a pointer track'}
        </Button>
      )}
      <input
        ref={track}
        type="file"
        accept=".json,.csv,.txt"
        className="hidden"
        aria-label={`Pointer track of ${view.name}`}
        onChange={(e) =>
          void attach(e.target.files?.[0]).finally(() => (track.current!.value = ''))
        }
      />
    </div>
  );
}
