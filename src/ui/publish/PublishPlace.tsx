'use client';
import { format } from 'date-fns';
import { Download, Link2, Trash2, X } from 'lucide-react';
import Link from 'next/link';
import { useEffect, useState } from 'react';
import { call } from '@/contract/call';
import {
  cancelExport,
  deleteExport,
  readExported,
  readExportLinks,
  type ExportView,
} from '@/contract/exports';
import { address } from '@/contract/route';
import type { ProjectState } from '@/contract/state';
import { FORMAT_FACTS } from '@/core/project/export-formats';
import { framesPerSecond } from '@/core/time/ticks';
import { formatClock } from '@/core/time/timecode';
import { useArrivals } from '../edit/arrivals';
import { listen } from '../edit/server-state';
import { IconButton } from '../parts/IconButton';
import { bytesInWords } from '../parts/bytes';
import { DropHint } from '../shell/DropHint';
import { tell, tellFault } from '../shell/notices-store';
import { useFileDrop } from '../shell/use-file-drop';
import { PlaceFrame } from '../shell/PlaceFrame';
import { CoverProof } from './CoverProof';
import { PlaceHeader } from '../shell/PlaceHeader';

/** The exports of a project, with progress, preview and download. */
export function PublishPlace({ id, name }: { id: string; name: string }) {
  const [state, setState] = useState<ProjectState | null>(null);
  const [connected, setConnected] = useState(true);
  const [shown, setShown] = useState<string | null>(null);
  useEffect(() => listen(id, setState, setConnected), [id]);
  const over = useFileDrop((files) => {
    useArrivals.getState().bring(id, files);
    tell('They are being added to Footage. Edit shows how far they are.');
  });
  const exports = state?.exports ?? [];
  const playing =
    exports.find((e) => e.id === shown && e.status === 'done') ??
    exports.find((e) => e.status === 'done');
  return (
    <PlaceFrame rows="grid-rows-[40px_minmax(0,1fr)]">
      {over && <DropHint />}
      <PlaceHeader id={id} name={state?.name ?? name} place="Publish">
        {!connected && <span className="text-xs font-semibold text-fault">server not reached</span>}
      </PlaceHeader>
      <div className="grid min-h-0 grid-cols-[minmax(0,58fr)_minmax(340px,42fr)]">
        <section
          aria-label="Preview of the export"
          className="flex items-center justify-center bg-surround p-2"
        >
          {playing ? (
            <Result key={playing.id} item={playing} />
          ) : (
            <p className="bg-sheet px-3 py-1">A finished export plays here.</p>
          )}
        </section>
        <section className="min-h-0 overflow-auto border-l border-line p-4">
          <h1 className="mb-3 text-lg font-semibold">Exports</h1>
          {!state && <p className="text-ink-2">Loading…</p>}
          {state && !exports.length && (
            <p className="text-ink-2">
              No export yet. Go to{' '}
              <Link className="text-action underline" href={`/projects/${id}/edit`}>
                Edit
              </Link>{' '}
              and press Export.
            </p>
          )}
          <ul aria-label="Exports">
            {exports.map((item) => (
              <ExportRow
                key={item.id}
                item={item}
                proofing={
                  state?.jobs.find((job) => job.subject === `${item.id}-covers`)?.progress ?? null
                }
                playing={item.id === playing?.id}
                onShow={() => setShown(item.id)}
              />
            ))}
          </ul>
        </section>
      </div>
    </PlaceFrame>
  );
}

/** A finished export, played or shown by what it is. */
function Result({ item }: { item: ExportView }) {
  const src = address(readExported, { id: item.id });
  const { picture } = FORMAT_FACTS[item.settings.format];
  if (!picture) return <audio controls src={src} aria-label={item.name} className="w-2/3" />;

  if (picture === 'still' || item.settings.format === 'gif')
    return <img src={src} alt={item.name} className="max-h-full max-w-full" />;
  return <video controls src={src} className="max-h-full max-w-full" />;
}

/** What was exported, in a line. */
function summary({ settings, result, createdAt }: ExportView): string {
  const { picture } = FORMAT_FACTS[settings.format];
  const still = picture === 'still';
  return [
    ...(picture ? [`${settings.width}×${settings.height} px`] : []),
    ...(picture && !still ? [`${Number(framesPerSecond(settings.frameRate).toFixed(2))} fps`] : []),
    ...(picture && !still && settings.format !== 'gif'
      ? [settings.bitRate === null ? settings.quality : `${settings.bitRate} Mbit/s`]
      : []),
    ...(result && !still ? [formatClock(result.duration)] : []),
    ...(result ? [bytesInWords(result.bytes), `made in ${formatClock(result.wallSeconds)}`] : []),
    format(new Date(createdAt), 'd MMM, HH:mm'),
  ].join(' · ');
}

function ExportRow({
  item,
  proofing,
  playing,
  onShow,
}: {
  item: ExportView;
  /** How far a look under its covers is; null when there is none. */
  proofing: number | null;
  playing: boolean;
  onShow: () => void;
}) {
  const { result, status } = item;
  const { picture } = FORMAT_FACTS[item.settings.format];
  const active = status === 'queued' || status === 'running';
  const cancel = () => void call(cancelExport, { params: { id: item.id } }).catch(tellFault);
  const remove = () => void call(deleteExport, { params: { id: item.id } }).catch(tellFault);
  return (
    <li className={`border-b border-line py-2 ${playing ? 'border-l-2 border-l-action pl-2' : ''}`}>
      <div className="flex items-center gap-2">
        <button className="min-w-0 flex-1 text-left" disabled={!result} onClick={onShow}>
          <span className="block truncate font-medium">
            {item.name}.{FORMAT_FACTS[item.settings.format].extension}
          </span>
          <span className="numbers block text-xs text-ink-2">{summary(item)}</span>
        </button>
        {status === 'done' && (
          <a
            href={address(readExported, { id: item.id }, { download: '' })}
            className="inline-flex items-center gap-1.5 border border-action bg-action px-2.5 py-1 font-medium text-on-action"
            download
          >
            <Download size={14} aria-hidden /> Download
          </a>
        )}
        {active ? (
          <IconButton icon={X} label="Cancel this export" onClick={cancel} />
        ) : (
          <IconButton icon={Trash2} label="Delete this export" onClick={remove} />
        )}
      </div>
      {active && (
        <div className="mt-1">
          <div
            role="progressbar"
            aria-label="Export"
            aria-valuenow={Math.round(item.progress * 100)}
            className="h-1.5 bg-line"
          >
            <div
              className="h-full bg-action transition-[width] duration-150"
              style={{ width: `${item.progress * 100}%` }}
            />
          </div>
          <span className="numbers text-xs text-ink-2">
            {Math.round(item.progress * 100)} % · {item.message}
          </span>
        </div>
      )}
      {status === 'done' && result?.links && (
        <a
          href={address(readExportLinks, { id: item.id })}
          className="mt-1 inline-flex min-h-6 items-center gap-1.5 text-sm underline"
          download
        >
          <Link2 size={14} aria-hidden />
          {result.links === 1 ? 'The link in it' : `The ${result.links} links in it`}, for players
        </a>
      )}
      {status === 'done' && picture && picture !== 'still' && (
        <CoverProof id={item.id} proof={item.proof} progress={proofing} />
      )}
      {(status === 'failed' || status === 'cancelled') && (
        <p className={`text-xs ${status === 'failed' ? 'text-fault' : 'text-ink-2'}`}>
          {item.message}
        </p>
      )}
    </li>
  );
}
