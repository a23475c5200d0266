'use client';
import { X } from 'lucide-react';
import { useNotices } from './notices-store';

/**
 * Messages at the foot of the page. They lie over what is worked on, so that presses go through
 * them but for their buttons.
 */
export function Notices() {
  const { notices, remove } = useNotices();
  return (
    <div
      className="pointer-events-none fixed bottom-4 left-1/2 z-50 flex -translate-x-1/2 flex-col gap-2"
      role="status"
      aria-live="polite"
    >
      {notices.map((notice) => (
        <div
          key={notice.id}
          className={`flex max-w-xl items-center gap-3 border bg-sheet px-3 py-2 shadow-md ${notice.tone === 'fault' ? 'border-fault text-fault' : 'border-line'}`}
        >
          <span>{notice.text}</span>
          {notice.action && (
            <button
              className="pointer-events-auto font-semibold whitespace-nowrap text-action underline"
              onClick={() => {
                notice.action!.run();
                remove(notice.id);
              }}
            >
              {notice.action.label}
            </button>
          )}
          <button
            aria-label="Close message"
            className="pointer-events-auto"
            onClick={() => remove(notice.id)}
          >
            <X size={14} />
          </button>
        </div>
      ))}
    </div>
  );
}
