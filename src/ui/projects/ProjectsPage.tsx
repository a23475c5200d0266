'use client';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { formatDistanceToNow } from 'date-fns';
import { Copy, Film, Pencil, Plus, Trash2, Undo2 } from 'lucide-react';
import Link from 'next/link';
import { useState } from 'react';
import { call } from '@/contract/call';
import { diskUsage } from '@/contract/disk';
import { footageUrl } from '@/contract/footage';
import {
  changeProject,
  duplicateProject,
  listProjects,
  type ProjectSummary,
} from '@/contract/projects';
import { framesPerSecond } from '@/core/time/ticks';
import { formatClock } from '@/core/time/timecode';
import { Button } from '../parts/Button';
import { bytesInWords } from '../parts/bytes';
import { IconButton } from '../parts/IconButton';
import { useHydrated } from '../parts/use-hydrated';
import { LampToggle } from '../shell/LampToggle';
import { tell, tellFault } from '../shell/notices-store';
import { DeletedDialog } from './DeletedDialog';
import { NewProjectDialog } from './NewProjectDialog';
import { RenameDialog } from './RenameDialog';

export function ProjectsPage({
  known,
}: {
  /** As the server had it when the page was asked for. */
  known: readonly ProjectSummary[] | undefined;
}) {
  const client = useQueryClient();
  const { data, error, isPending } = useQuery({
    queryKey: ['projects'],
    queryFn: () => call(listProjects),
    initialData: known,
    // It is shown at once, and asked for all the same.
    initialDataUpdatedAt: 0,
  });
  const { data: usage } = useQuery({
    queryKey: ['projects', 'disk'],
    queryFn: () => call(diskUsage),
  });
  const hydrated = useHydrated();
  const [creating, setCreating] = useState(false);
  const [showingDeleted, setShowingDeleted] = useState(false);
  const [renaming, setRenaming] = useState<ProjectSummary | null>(null);
  const refresh = () => client.invalidateQueries({ queryKey: ['projects'] });
  const change = useMutation({
    mutationFn: (work: () => Promise<unknown>) => work(),
    onSuccess: refresh,
    onError: tellFault,
  });
  const setDeleted = (id: string, deleted: boolean) =>
    call(changeProject, { params: { id }, body: { deleted } });
  const remove = (project: ProjectSummary) =>
    change.mutate(async () => {
      await setDeleted(project.id, true);
      tell(`“${project.name}” was deleted.`, {
        label: 'Undo',
        run: () => change.mutate(() => setDeleted(project.id, false)),
      });
    });
  return (
    // A press that comes too early would be lost without a word.
    <div className="mx-auto max-w-5xl px-6 pb-16" inert={!hydrated}>
      <header className="flex items-center justify-between border-b border-line py-4">
        <span className="text-lg font-bold">Vistum</span>
        <LampToggle />
      </header>
      <div className="flex items-end justify-between py-6">
        <div>
          <h1 className="text-2xl font-semibold">Projects</h1>
          <p className="text-ink-2">Bring raw recordings, take a sharp, guided tutorial away.</p>
        </div>
        <Button look="primary" onClick={() => setCreating(true)}>
          <Plus size={16} aria-hidden /> New project
        </Button>
      </div>
      {isPending && <p className="text-ink-2">Loading projects…</p>}
      {error && <p className="text-fault">{error.message}</p>}
      {data?.length === 0 && (
        <div className="border border-dashed border-line p-10 text-center">
          <p className="mb-3">No project yet. Make one, then drop your recordings into it.</p>
          <Button look="primary" onClick={() => setCreating(true)}>
            New project
          </Button>
        </div>
      )}
      <ul className="border-t border-line" aria-label="Projects">
        {data?.map((project) => (
          <li key={project.id} className="flex items-center gap-4 border-b border-line py-3">
            <Link
              href={`/projects/${project.id}/edit`}
              className="flex min-w-0 flex-1 items-center gap-4"
            >
              <Poster project={project} />
              <span className="min-w-0">
                <span className="block truncate text-base font-semibold">{project.name}</span>
                <ProjectFacts project={project} bytes={usage?.projects[project.id]} />
              </span>
            </Link>
            <IconButton
              icon={Pencil}
              label={`Rename ${project.name}`}
              onClick={() => setRenaming(project)}
            />
            <IconButton
              icon={Copy}
              label={`Duplicate ${project.name}`}
              disabled={change.isPending}
              onClick={() =>
                change.mutate(() => call(duplicateProject, { params: { id: project.id } }))
              }
            />
            <IconButton
              icon={Trash2}
              label={`Delete ${project.name}`}
              onClick={() => remove(project)}
            />
          </li>
        ))}
      </ul>
      <footer className="flex items-center justify-between gap-4 py-3">
        <Button look="quiet" onClick={() => setShowingDeleted(true)}>
          <Undo2 size={14} aria-hidden /> Deleted things
        </Button>
        {usage && (
          <span className="numbers text-xs text-ink-2">
            {bytesInWords(usage.used)} used · {bytesInWords(usage.free)} free
          </span>
        )}
      </footer>
      <DeletedDialog open={showingDeleted} onClose={() => setShowingDeleted(false)} />
      <NewProjectDialog open={creating} onClose={() => setCreating(false)} />
      {renaming && (
        <RenameDialog
          name={renaming.name}
          onClose={() => setRenaming(null)}
          onRename={(name) =>
            change.mutate(() =>
              call(changeProject, { params: { id: renaming.id }, body: { name } }),
            )
          }
        />
      )}
    </div>
  );
}

/** Length, size, rate, disk and last change of a project in one line. */
function ProjectFacts({ project, bytes }: { project: ProjectSummary; bytes: number | undefined }) {
  const { picture, changedAt } = project;
  const facts = [
    ...(picture
      ? [
          formatClock(picture.seconds),
          `${picture.width}×${picture.height} px`,
          `${Number(framesPerSecond(picture.frameRate).toFixed(2))} fps`,
        ]
      : []),
    ...(bytes === undefined ? [] : [bytesInWords(bytes)]),
    `changed ${formatDistanceToNow(new Date(changedAt), { addSuffix: true })}`,
  ];
  return (
    <span className="block text-xs text-ink-2">
      {!picture && <span className="text-fault">Damaged; open it to see what can be done · </span>}
      {/* How long ago it was may be said otherwise by now than when the server made the page. */}
      <span className="numbers" suppressHydrationWarning>
        {facts.join(' · ')}
      </span>
    </span>
  );
}

function Poster({ project }: { project: ProjectSummary }) {
  return (
    <span className="flex h-[54px] w-24 shrink-0 items-center justify-center overflow-hidden border border-line bg-surround/30">
      {project.poster ? (
        // The strip's first view; its height is fixed, so that cutting it off at the side shows
        // one.
        <span
          className="size-full bg-cover bg-left"
          style={{
            backgroundImage: `url(${footageUrl(project.poster, 'thumbs')})`,
            backgroundSize: 'auto 100%',
          }}
        />
      ) : (
        <Film size={18} className="text-ink-2" aria-hidden />
      )}
    </span>
  );
}
