'use client';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { formatDistanceToNow } from 'date-fns';
import { call } from '@/contract/call';
import { bringBack, listDeleted, type Deleted, type DeletedKind } from '@/contract/disk';
import { Button } from '../parts/Button';
import { Dialog } from '../parts/Dialog';
import { tell, tellFault } from '../shell/notices-store';

const KINDS: Readonly<Record<DeletedKind, string>> = {
  project: 'Project',
  footage: 'Footage',
  take: 'Take',
};

/** What was deleted and can be brought back, with when it will be gone for good. */
export function DeletedDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  const client = useQueryClient();
  const { data, error, isPending } = useQuery({
    queryKey: ['deleted'],
    queryFn: () => call(listDeleted),
    enabled: open,
    staleTime: 0,
  });
  const back = useMutation({
    mutationFn: ({ kind, id }: Deleted) => call(bringBack, { body: { kind, id } }),
    onSuccess: (_, { name }) => tell(`“${name}” was brought back.`),
    onError: tellFault,
    onSettled: () =>
      Promise.all(
        ['deleted', 'projects'].map((key) => client.invalidateQueries({ queryKey: [key] })),
      ),
  });
  return (
    <Dialog
      open={open}
      onClose={onClose}
      title="Deleted things"
      description="They can be brought back until they are deleted for good."
      wide
    >
      {isPending && open && <p className="text-ink-2">Loading…</p>}
      {error && <p className="text-fault">{error.message}</p>}
      {data?.length === 0 && <p className="text-ink-2">Nothing was deleted lately.</p>}
      <ul className="divide-y divide-line" aria-label="Deleted things">
        {data?.map((item) => (
          <li key={`${item.kind} ${item.id}`} className="flex items-center gap-3 py-2">
            <span className="min-w-0 flex-1">
              <span className="block truncate font-semibold" title={item.name}>
                {item.name}
              </span>
              <span className="block truncate text-xs text-ink-2">
                {KINDS[item.kind]}
                {item.kind !== 'project' && ` of ${item.projectName}`} · deleted{' '}
                {formatDistanceToNow(new Date(item.deletedAt), { addSuffix: true })} · gone for good{' '}
                {formatDistanceToNow(new Date(item.purgeAt), { addSuffix: true })}
              </span>
            </span>
            <Button
              disabled={back.isPending}
              aria-label={`Bring ${item.name} back`}
              onClick={() => back.mutate(item)}
            >
              Bring back
            </Button>
          </li>
        ))}
      </ul>
    </Dialog>
  );
}
