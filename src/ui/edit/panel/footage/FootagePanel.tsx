'use client';
import { LayoutGrid, List, Music, Upload, X } from 'lucide-react';
import { useRef, useState } from 'react';
import { useShallow } from 'zustand/react/shallow';
import type { FootageView } from '@/contract/footage';
import { shownFootage } from '@/core/project/query';
import { ROLES } from '@/core/project/sources';
import { Button } from '../../../parts/Button';
import { IconButton } from '../../../parts/IconButton';
import { useEditor } from '../../store';
import { useUploads } from '../../upload-store';
import { arrange, SORTS, tagsOf, type Arrangement, type Sort } from './arrange';
import { ChooseFiles } from './ChooseFiles';
import { DeleteFootage } from './DeleteFootage';
import { FootageItem } from './FootageItem';
import { Progress } from './Progress';
import { FootagePreview } from './FootagePreview';
import { MusicShelf } from './MusicShelf';
import { useFootageActions } from './use-footage-actions';

const fieldLook = 'min-w-0 rounded-(--radius) border border-line bg-sheet px-1 py-0.5';

/** All recordings of the project: found, looked at, and placed from here. */
export function FootagePanel() {
  const footage = useEditor((s) => s.footage);
  const id = useEditor((s) => s.id);
  const lanes = useEditor((s) => s.project.lanes);
  const callouts = useEditor((s) => s.project.callouts);
  const presenter = useEditor((s) => s.project.presenter);
  const canvas = useEditor((s) => s.project.canvas);
  const layouts = useEditor((s) => s.project.layouts);
  const items = useUploads(useShallow((s) => s.items.filter((i) => i.projectId === id)));
  const input = useRef<HTMLInputElement>(null);
  const [arrangement, setArrangement] = useState<Arrangement>({
    sort: 'added',
    filter: '',
    search: '',
  });
  const [grid, setGrid] = useState(false);
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const [previewed, setPreviewed] = useState<string | null>(null);
  const [deleting, setDeleting] = useState<FootageView | null>(null);
  const [shelf, setShelf] = useState(false);
  const { place, remove } = useFootageActions();
  const used = shownFootage({ lanes, callouts, canvas, layouts, presenter });
  const shown = arrange(footage, arrangement, used);
  const picked = chosen.filter((c) =>
    shown.some((v) => v.id === c && v.facts && v.status !== 'failed'),
  );
  const change = (what: Partial<Arrangement>) => setArrangement({ ...arrangement, ...what });
  const tags = tagsOf(footage);
  return (
    <div className="p-2">
      <div className="flex flex-wrap items-center gap-1.5 pb-2">
        <Button onClick={() => input.current?.click()}>
          <Upload size={14} aria-hidden /> Add recordings
        </Button>
        <IconButton icon={Music} label="Music shelf" onClick={() => setShelf(true)} />
        <input
          type="search"
          placeholder="Search"
          aria-label="Search footage"
          className={`${fieldLook} w-24 flex-1`}
          value={arrangement.search}
          onChange={(e) => change({ search: e.target.value })}
        />
        <select
          aria-label="Show footage"
          className={`${fieldLook} w-24`}
          value={arrangement.filter}
          onChange={(e) => change({ filter: e.target.value as Arrangement['filter'] })}
        >
          <option value="">all</option>
          <option value="unused">not used yet</option>
          <optgroup label="Role">
            {ROLES.map((role) => (
              <option key={role}>{role}</option>
            ))}
          </optgroup>
          <optgroup label="Kind">
            <option value="video">video</option>
            <option value="audio">audio</option>
            <option value="image">picture</option>
          </optgroup>
          {tags.length > 0 && (
            <optgroup label="Tag">
              {tags.map((tag) => (
                <option key={tag} value={`#${tag}`}>
                  {tag}
                </option>
              ))}
            </optgroup>
          )}
        </select>
        <select
          aria-label="Sort footage"
          className={`${fieldLook} w-28`}
          value={arrangement.sort}
          onChange={(e) => change({ sort: e.target.value as Sort })}
        >
          {SORTS.map(([value, label]) => (
            <option key={value} value={value}>
              {label}
            </option>
          ))}
        </select>
        <IconButton
          icon={grid ? List : LayoutGrid}
          label={grid ? 'Show as a list' : 'Show as a grid'}
          onClick={() => setGrid(!grid)}
        />
        <ChooseFiles field={input} label="Recordings to add" />
      </div>
      {picked.length > 0 && (
        <div
          className="mb-2 flex items-center gap-1.5 border border-action px-2 py-1"
          role="group"
          aria-label="Chosen footage"
        >
          <span className="flex-1">{picked.length} chosen, in the order they were chosen</span>
          <Button onClick={() => place(picked, 'insert')}>Insert</Button>
          <Button onClick={() => place(picked, 'overwrite')}>Overwrite</Button>
          <Button onClick={() => place(picked, 'end') && setChosen([])}>Place at the end</Button>
          <IconButton icon={X} label="Choose none" onClick={() => setChosen([])} />
        </div>
      )}
      {items.map((item) => (
        <div key={item.id} className="flex items-center gap-2 border-b border-line py-1.5">
          <span className="min-w-0 flex-1">
            <span className="block truncate">{item.name}</span>
            {item.state === 'failed' ? (
              <span className="block text-xs text-fault">{item.message}</span>
            ) : (
              <Progress
                share={item.share}
                label={
                  item.state === 'queued'
                    ? 'Waiting for its turn'
                    : item.message || `Uploading, ${Math.round(item.share * 100)} %`
                }
              />
            )}
          </span>
          <IconButton
            icon={X}
            label={
              item.state === 'failed'
                ? `Dismiss the message on ${item.name}`
                : `Cancel the upload of ${item.name}`
            }
            onClick={item.cancel}
          />
        </div>
      ))}
      {!footage.length && !items.length && (
        <p className="p-2 text-ink-2">
          No footage yet. Add your screen and camera recordings, music and stills, or drop files
          anywhere. The files themselves are never changed.
        </p>
      )}
      {footage.length > 0 && !shown.length && (
        <p className="p-2 text-ink-2">
          Nothing in Footage is like that. Clear the search, or show all.
        </p>
      )}
      <ul aria-label="Footage" className={grid ? 'grid grid-cols-2 gap-2' : ''}>
        {shown.map((view) => (
          <FootageItem
            key={view.id}
            view={view}
            grid={grid}
            used={used.has(view.id)}
            chosen={chosen.includes(view.id)}
            dragged={chosen.includes(view.id) ? picked : [view.id]}
            onChoose={() =>
              setChosen(
                chosen.includes(view.id)
                  ? chosen.filter((c) => c !== view.id)
                  : [...chosen, view.id],
              )
            }
            onPreview={() => setPreviewed(view.id)}
            onDelete={() => (used.has(view.id) ? setDeleting(view) : void remove(view))}
          />
        ))}
      </ul>
      <FootagePreview
        view={footage.find((v) => v.id === previewed) ?? null}
        onClose={() => setPreviewed(null)}
      />
      <DeleteFootage view={deleting} onClose={() => setDeleting(null)} />
      <MusicShelf open={shelf} onClose={() => setShelf(false)} />
    </div>
  );
}
