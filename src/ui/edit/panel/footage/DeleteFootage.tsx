'use client';
import type { FootageView } from '@/contract/footage';
import { formatTimecode } from '@/core/time/timecode';
import { Button } from '../../../parts/Button';
import { Dialog } from '../../../parts/Dialog';
import { useEditor } from '../../store';
import { useFootageActions } from './use-footage-actions';

const MOST_SHOWN = 8;

/** What is said of how often it is used, and what would become of that. */
function usedIn(clips: number, pictures: number): string {
  const parts = [
    ...(clips ? [`${clips} ${clips === 1 ? 'clip' : 'clips'}`] : []),
    ...(pictures ? [`${pictures} ${pictures === 1 ? 'picture' : 'pictures'} over recordings`] : []),
  ];
  const gaps = clips ? 'They would be lifted; their gaps stay.' : 'They would be removed.';
  return `It is used in ${parts.join(' and ')}. ${gaps}`;
}

/** Asks before footage goes that is used, and says where. */
export function DeleteFootage({
  view,
  onClose,
}: {
  view: FootageView | null;
  onClose: () => void;
}) {
  const { usesOf, picturesOf, remove } = useFootageActions();
  const rate = useEditor((s) => s.project.canvas.frameRate);
  const uses = view ? usesOf(view.id) : [];
  const pictures = view ? picturesOf(view.id) : 0;
  const locked = uses.some((u) => u.lane.locked);
  return (
    <Dialog
      open={!!view}
      onClose={onClose}
      title={`Delete “${view?.name ?? ''}”?`}
      description={usedIn(uses.length, pictures)}
    >
      {uses.length > 0 && (
        <ul
          className="mb-3 max-h-48 overflow-auto border border-line"
          aria-label="Where it is used"
        >
          {uses.slice(0, MOST_SHOWN).map(({ lane, clip }) => (
            <li
              key={clip.id}
              className="flex justify-between border-b border-line px-2 py-1 last:border-0"
            >
              <span>{lane.name}</span>
              <span className="numbers">
                {formatTimecode(clip.start, rate)} to{' '}
                {formatTimecode(clip.start + clip.duration, rate)}
              </span>
            </li>
          ))}
          {uses.length > MOST_SHOWN && (
            <li className="px-2 py-1 text-ink-2">and {uses.length - MOST_SHOWN} more</li>
          )}
        </ul>
      )}
      {locked && (
        <p className="mb-3 text-caution">Some of them stand on a locked lane. Unlock it first.</p>
      )}
      <div className="flex justify-end gap-2">
        <Button onClick={onClose}>Keep it</Button>
        <Button
          look="primary"
          disabled={locked}
          onClick={() => {
            void remove(view!);
            onClose();
          }}
        >
          {uses.length ? 'Delete and lift its clips' : 'Delete with its pictures'}
        </Button>
      </div>
    </Dialog>
  );
}
