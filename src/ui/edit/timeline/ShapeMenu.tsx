'use client';
import {
  ChevronDown,
  Circle,
  Focus,
  Hash,
  Highlighter,
  Keyboard,
  MessageSquare,
  MoveUpRight,
  PenLine,
  Slash,
  Square,
  ZoomIn,
  type LucideIcon,
} from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { kindOf, KINDS, type CalloutKindName } from '@/core/callout/kinds';
import { Button } from '../../parts/Button';
import { menuItemLook, menuLook } from '../../parts/menu';
import { capital } from '../names';

const ICONS: Readonly<Partial<Record<CalloutKindName, LucideIcon>>> = {
  ...{ arrow: MoveUpRight, line: Slash, box: Square, ellipse: Circle },
  ...{ note: MessageSquare, highlight: Highlighter, spotlight: Focus, count: Hash },
  ...{ lens: ZoomIn, keycaps: Keyboard },
};
/** These have buttons of their own. */
const APART: readonly CalloutKindName[] = ['text', 'cover'];

const SHAPES = (Object.keys(KINDS) as CalloutKindName[]).filter(
  (kind) => kindOf({ kind }).create && !APART.includes(kind),
);

/** Adds a shape at the playhead: what points at something. */
export function ShapeMenu({ run }: { run: (id: string) => void }) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger asChild>
        <Button
          look="quiet"
          className="px-1.5"
          title="Arrow, line, box, marker pen, count and more here"
        >
          Shape <ChevronDown size={12} aria-hidden />
        </Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className={`${menuLook} min-w-32`} align="start" sideOffset={4}>
          {SHAPES.map((kind) => {
            const Icon = ICONS[kind];
            const { name } = kindOf({ kind });
            return (
              <DropdownMenu.Item
                key={kind}
                className={`flex items-center gap-3 ${menuItemLook}`}
                onSelect={() => run(name)}
              >
                {Icon && <Icon size={16} aria-hidden />}
                {capital(name)}
              </DropdownMenu.Item>
            );
          })}
          <DropdownMenu.Item
            className={`flex items-center gap-3 ${menuItemLook}`}
            onSelect={() => run('draw-pen')}
          >
            <PenLine size={16} aria-hidden />
            Draw with the pen
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
