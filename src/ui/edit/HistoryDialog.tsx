'use client';
import { Dialog } from '../parts/Dialog';
import { useEditor } from './store';

/**
 * All edits as a list; pressing one goes to the state after it. What lies ahead stays until
 * something else is done.
 */
export function HistoryDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  const history = useEditor((s) => s.history);
  const goTo = useEditor((s) => s.goTo);
  const { done, undone } = history;
  const rows = [
    { label: 'As it was opened first', count: 0 },
    ...done.map((entry, i) => ({ label: entry.label, count: i + 1 })),
    ...[...undone]
      .reverse()
      .map((entry, i) => ({ label: entry.label, count: done.length + i + 1 })),
  ];
  return (
    <Dialog
      open={open}
      onClose={onClose}
      title="Undo history"
      description="Press a line to go to the state after it. Nothing is lost by going back."
    >
      <ol aria-label="Edits" className="max-h-96 overflow-auto border border-line">
        {rows.map(({ label, count }) => (
          <li key={count}>
            <button
              aria-current={count === done.length ? 'step' : undefined}
              className={`flex w-full gap-3 px-2 py-1 text-left ${count === done.length ? 'bg-action text-on-action' : count > done.length ? 'text-ink-2 hover:bg-paper' : 'hover:bg-paper'}`}
              onClick={() => goTo(count)}
            >
              <span className="numbers w-8 text-right">{count}</span>
              <span>{label}</span>
              {count > done.length && <span className="ml-auto text-xs">undone</span>}
            </button>
          </li>
        ))}
      </ol>
    </Dialog>
  );
}
