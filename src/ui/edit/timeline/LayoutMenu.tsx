'use client';
import { ChevronDown } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { LAYOUT_KINDS, LAYOUTS, type LayoutKind } from '@/core/layout/built-in';
import type { Box } from '@/core/layout/model';
import { Button } from '../../parts/Button';

const SIDE = { width: 48, height: 27 } as const;
/** Where the small picture has a presenter who is placed by the project. */
const CORNER: Box = { x: 0.7, y: 0.58, width: 0.22, height: 0.36 };

/** A layout as a small picture. */
function LayoutSketch({ kind }: { kind: LayoutKind }) {
  const { screen, presenter } = LAYOUTS[kind];
  const person = presenter === 'placed' ? CORNER : presenter?.box;
  const box = ({ x, y, width, height }: Box) => ({
    ...{ x: x * SIDE.width, y: y * SIDE.height },
    ...{ width: width * SIDE.width, height: height * SIDE.height },
  });
  return (
    <svg {...SIDE} aria-hidden className="border border-line bg-paper">
      {screen && <rect {...box(screen.box)} fill="var(--lane-screen)" />}
      {person && (
        <rect {...box(person)} rx={presenter === 'placed' ? 5 : 0} fill="var(--lane-presenter)" />
      )}
    </svg>
  );
}

/** Sets the layout of the range, or of the step at the playhead, from small pictures. */
export function LayoutMenu({ run }: { run: (id: string) => void }) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger asChild>
        <Button look="quiet" className="px-1.5" title="Layout of the range or step">
          Layout <ChevronDown size={12} aria-hidden />
        </Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          className="z-50 border border-line bg-sheet p-1 shadow"
          align="start"
          sideOffset={4}
        >
          {LAYOUT_KINDS.map((kind) => (
            <DropdownMenu.Item
              key={kind}
              className="flex cursor-default items-center gap-3 px-2 py-1 outline-none data-[highlighted]:bg-action data-[highlighted]:text-on-action"
              onSelect={() => run(`layout-${kind}`)}
            >
              <LayoutSketch kind={kind} />
              {LAYOUTS[kind].name}
            </DropdownMenu.Item>
          ))}
          <DropdownMenu.Item
            className="cursor-default px-2 py-1 outline-none data-[highlighted]:bg-action data-[highlighted]:text-on-action"
            onSelect={() => run('layout-hand')}
          >
            By hand: drag the boxes on the Picture
          </DropdownMenu.Item>
          <DropdownMenu.Separator className="my-1 border-t border-line" />
          <DropdownMenu.Item
            className="cursor-default px-2 py-1 outline-none data-[highlighted]:bg-action data-[highlighted]:text-on-action"
            onSelect={() => run('presenter')}
          >
            Presenter settings
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
