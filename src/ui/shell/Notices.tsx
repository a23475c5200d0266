'use client';
import { X } from 'lucide-react';
import { Toast } from 'radix-ui';
import { useRef } from 'react';
import { SHOWN_MS, useNotices } from './notices-store';

/**
 * Messages at the foot of the page. They lie over what is worked on, so that presses go through
 * them but for their buttons. One that is pointed at, or has the focus, stays.
 */
export function Notices() {
  const { notices, remove } = useNotices();
  // Escape is meant for what is worked on, unless a message has the focus.
  const meant = useRef(true);
  return (
    <Toast.Provider label="Message" duration={SHOWN_MS}>
      {notices.map(({ id, text, tone, actions }) => (
        <Toast.Root
          key={id}
          type={tone === 'fault' ? 'foreground' : 'background'}
          open
          onEscapeKeyDown={({ target }) => {
            meant.current = target instanceof Element && !!target.closest('[data-messages]');
          }}
          onOpenChange={(open) => {
            if (!open && meant.current) remove(id);
            meant.current = true;
          }}
          className={`flex max-w-xl items-center gap-3 border bg-sheet px-3 py-2 shadow-md ${tone === 'fault' ? 'border-fault text-fault' : 'border-line'}`}
        >
          <Toast.Description>{text}</Toast.Description>
          {actions.map((action) => (
            <Toast.Action
              key={action.label}
              altText={action.label}
              className="pointer-events-auto font-semibold whitespace-nowrap text-action underline"
              onClick={action.run}
            >
              {action.label}
            </Toast.Action>
          ))}
          <Toast.Close aria-label="Close message" className="pointer-events-auto">
            <X size={14} />
          </Toast.Close>
        </Toast.Root>
      ))}
      <Toast.Viewport
        data-messages
        label="Messages ({hotkey})"
        className="pointer-events-none! fixed bottom-4 left-1/2 z-50 flex -translate-x-1/2 flex-col gap-2"
      />
    </Toast.Provider>
  );
}
