'use client';
import { X } from 'lucide-react';
import { Dialog as Radix } from 'radix-ui';
import type { ReactNode } from 'react';
import { useKeysHeld } from '../keys/use-key-scope';

interface Props {
  readonly open: boolean;
  readonly onClose: () => void;
  readonly title: string;
  readonly description: string;
  readonly children: ReactNode;
  readonly wide?: boolean;
}

export function Dialog({ open, onClose, title, description, children, wide }: Props) {
  useKeysHeld(open, onClose);
  return (
    <Radix.Root open={open} onOpenChange={(now) => !now && onClose()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-black/35" />
        <Radix.Content
          // What is typed and not taken over yet is taken back first; its field sees to that.
          onEscapeKeyDown={(event) =>
            document.activeElement?.hasAttribute('data-draft') && event.preventDefault()
          }
          className={`fixed top-1/2 left-1/2 z-40 max-h-[90vh] max-w-[calc(100vw-16px)] -translate-x-1/2 -translate-y-1/2 overflow-auto border border-line bg-sheet p-5 shadow-xl ${wide ? 'w-[640px]' : 'w-[440px]'}`}
        >
          <div className="mb-1 flex items-start justify-between gap-4">
            <Radix.Title className="text-lg font-semibold">{title}</Radix.Title>
            <Radix.Close aria-label="Close">
              <X size={16} />
            </Radix.Close>
          </div>
          <Radix.Description className="mb-4 text-ink-2">{description}</Radix.Description>
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
