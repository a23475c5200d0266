'use client';
import { MousePointer2, Plus, Trash2, Upload, X } from 'lucide-react';
import { nanoid } from 'nanoid';
import { useRef } from 'react';
import { placeFootage } from '@/core/edit/place';
import { ROLES, type Role } from '@/core/project/sources';
import { framesPerSecond, snapToFrame, ticksToSeconds } from '@/core/time/ticks';
import { formatClock } from '@/core/time/timecode';
import type { FootageView } from '@/server/footage';
import { Button } from '../../parts/Button';
import { IconButton } from '../../parts/IconButton';
import { api } from '../../shell/api';
import { tell, tellFault } from '../../shell/notices-store';
import { useEditor, useEditorStore } from '../store';
import { useUploads } from '../upload-store';

const ACCEPT = '.mp4,.mov,.m4v,.mkv,.webm,.ogg,.avi,.wav,.mp3,.m4a,.aac,.flac,.png,.jpg,.jpeg,.webp';

export function FootagePanel() {
  const footage = useEditor((s) => s.footage);
  const id = useEditor((s) => s.id);
  const items = useUploads((s) => s.items);
  const input = useRef<HTMLInputElement>(null);
  return (
    <div className="p-2">
      <div className="flex items-center gap-2 pb-2">
        <Button onClick={() => input.current?.click()}>
          <Upload size={14} aria-hidden /> Add recordings
        </Button>
        <span className="text-xs text-ink-2">or drop files anywhere</span>
        <input
          ref={input}
          type="file"
          multiple
          accept={ACCEPT}
          className="hidden"
          aria-label="Recordings to add"
          onChange={(e) => {
            useUploads.getState().add(id, [...(e.target.files ?? [])]);
            e.target.value = '';
          }}
        />
      </div>
      {items.map((item) => (
        <div key={item.id} className="flex items-center gap-2 border-b border-line py-1.5">
          <span className="min-w-0 flex-1">
            <span className="block truncate">{item.name}</span>
            <Progress share={item.share} label={item.message || `Uploading, ${Math.round(item.share * 100)} %`} />
          </span>
          <IconButton icon={X} label={`Cancel the upload of ${item.name}`} onClick={item.cancel} />
        </div>
      ))}
      {!footage.length && !items.length && (
        <p className="p-2 text-ink-2">
          No footage yet. Add your screen and camera recordings, music and stills. The files themselves are never changed.
        </p>
      )}
      <ul aria-label="Footage">
        {footage.map((view) => (
          <FootageRow key={view.id} view={view} />
        ))}
      </ul>
    </div>
  );
}

function Progress({ share, label }: { share: number; label: string }) {
  return (
    <span className="block">
      <span role="progressbar" aria-valuenow={Math.round(share * 100)} aria-label={label} className="mt-1 block h-1 bg-line">
        <span className="block h-full bg-action transition-[width] duration-150" style={{ width: `${share * 100}%` }} />
      </span>
      <span className="numbers text-xs text-ink-2">{label}</span>
    </span>
  );
}

function describe({ facts }: FootageView): string {
  if (!facts) return '';
  const parts = [facts.kind === 'image' ? 'still' : formatClock(ticksToSeconds(facts.duration))];
  if (facts.hasVideo) parts.push(`${facts.width}×${facts.height} px`);
  if (facts.frameRate) parts.push(`${Number(framesPerSecond(facts.frameRate).toFixed(2))} fps${facts.variableRate ? ', varies' : ''}`);
  if (facts.hasAudio) parts.push(facts.channels === 1 ? 'mono' : 'stereo');
  return parts.join(' · ');
}

function FootageRow({ view }: { view: FootageView }) {
  const store = useEditorStore();
  const job = useEditor((s) => s.jobs.find((j) => j.subject === view.id));
  const used = useEditor((s) => s.project.lanes.some((lane) => lane.clips.some((clip) => clip.footageId === view.id)));
  const track = useRef<HTMLInputElement>(null);
  const change = (body: object) => api(`/api/footage/${view.id}`, { method: 'PATCH', body }).catch(tellFault);
  const place = () => {
    const { sources, edit, playhead, project } = store.getState();
    const facts = sources.footage[view.id];
    if (!facts) return;
    const at = snapToFrame(playhead, project.canvas.frameRate);
    // At the playhead where there is room, otherwise at the end of its lane.
    const tryAt = (time: number | null) => edit('Place footage', (draft) => void placeFootage(draft, facts, time, nanoid));
    const free = project.lanes.every((lane) => lane.clips.every((c) => c.start >= at + facts.duration || c.start + c.duration <= at));
    tryAt(free ? at : null);
  };
  const attach = async (file: File | undefined) => {
    if (!file) return;
    const form = new FormData();
    form.set('track', file);
    try {
      const { notes, samples } = await api<{ notes: string[]; samples: number }>(`/api/footage/${view.id}/pointer`, {
        method: 'POST',
        form,
      });
      tell([`The pointer track with ${samples} positions was attached.`, ...notes].join(' '));
    } catch (error) {
      tellFault(error);
    }
  };
  const remove = () => {
    if (used) return tellFault(`${view.name} is used on the timeline. Lift its clips first, then delete it.`);
    void change({ deleted: true });
    tell(`“${view.name}” was taken out of Footage.`, { label: 'Undo', run: () => void change({ deleted: false }) });
  };
  return (
    <li className="flex items-center gap-2 border-b border-line py-1.5">
      <span
        className="h-9 w-16 shrink-0 overflow-hidden border border-line bg-surround/30"
        style={
          view.facts?.hasVideo && view.status === 'ready'
            ? { backgroundImage: `url(/api/footage/${view.id}/thumbs)`, backgroundSize: 'auto 100%' }
            : {}
        }
      />
      <span className="min-w-0 flex-1">
        <span className="block truncate font-medium" title={view.name}>
          {view.name}
        </span>
        {view.status === 'failed' ? (
          <span className="block text-xs text-fault">{view.error}</span>
        ) : view.status === 'waiting' ? (
          <Progress share={job?.progress ?? 0} label={job?.message ?? 'Waiting'} />
        ) : (
          <span className="numbers block truncate text-xs text-ink-2" title={view.notes.join(' ')}>
            {describe(view)}
          </span>
        )}
        {view.status === 'ready' && view.notes.length > 0 && (
          <span className="block truncate text-xs text-caution" title={view.notes.join(' ')}>
            {view.notes[0]}
          </span>
        )}
      </span>
      {view.status === 'ready' && (
        <>
          <select
            aria-label={`Role of ${view.name}`}
            className="w-24 rounded-(--radius) border border-line bg-sheet px-1 py-0.5"
            value={view.role}
            onChange={(e) => void change({ role: e.target.value as Role })}
          >
            {ROLES.map((role) => (
              <option key={role} value={role}>
                {role}
              </option>
            ))}
          </select>
          {view.facts?.hasVideo && view.facts.kind === 'video' && (
            <>
              <IconButton
                icon={MousePointer2}
                label={view.hasPointer ? `Replace the pointer track of ${view.name}` : `Attach a pointer track to ${view.name}`}
                pressed={view.hasPointer}
                onClick={() => track.current?.click()}
              />
              <input
                ref={track}
                type="file"
                accept=".json,.csv,.txt"
                className="hidden"
                aria-label={`Pointer track of ${view.name}`}
                onChange={(e) => void attach(e.target.files?.[0]).finally(() => (track.current!.value = ''))}
              />
            </>
          )}
          <IconButton icon={Plus} label={`Place ${view.name} on the timeline`} onClick={place} />
        </>
      )}
      <IconButton icon={Trash2} label={`Delete ${view.name} from Footage`} onClick={remove} />
    </li>
  );
}
