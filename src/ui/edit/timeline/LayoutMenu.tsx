'use client';
import { ChevronDown } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useState } from 'react';
import { arrangementsFor } from '@/core/layout/arrangements';
import { LAYOUT_KINDS, LAYOUTS } from '@/core/layout/built-in';
import type { Box, Layout } from '@/core/layout/model';
import { Button } from '../../parts/Button';
import { longMenuLook, menuItemLook } from '../../parts/menu';
import { useSavedPresets } from '../../presets/use-saved-presets';
import { CommandContext } from '../commands/context';
import { setLayoutHere } from '../commands/layouts';
import { useEditor, useEditorStore } from '../store';

/** The small picture of a wide one, in CSS pixels; that of an upright one is as high. */
const SIDE = { width: 48, height: 27 } as const;
/** Where the small picture has a presenter who is placed by the project. */
const CORNER: Box = { x: 0.7, y: 0.58, width: 0.22, height: 0.36 };

/** A layout as a small picture. */
function LayoutSketch({ layout: { screen, presenter } }: { layout: Layout }) {
  const { width, height } = useEditor((s) => s.project.canvas);
  const side = { ...SIDE, width: Math.min(SIDE.width, (SIDE.height * width) / height) };
  const person = presenter === 'placed' ? CORNER : presenter?.box;
  const round = presenter === 'placed' || (presenter && presenter.shape !== 'rectangle');
  const box = ({ x, y, width, height }: Box) => ({
    ...{ x: x * side.width, y: y * side.height },
    ...{ width: width * side.width, height: height * side.height },
  });
  return (
    <span className="flex w-12 shrink-0 justify-center">
      <svg {...side} aria-hidden className="border border-line bg-paper">
        {screen && <rect {...box(screen.box)} fill="var(--lane-screen)" />}
        {person && <rect {...box(person)} rx={round ? 5 : 0} fill="var(--lane-presenter)" />}
      </svg>
    </span>
  );
}

/** Sets the layout of the range, or of the step at the playhead, from small pictures: the built-in
 * ones, others to begin with, and those that were saved. */
export function LayoutMenu({ run }: { run: (id: string) => void }) {
  const store = useEditorStore();
  const [open, setOpen] = useState(false);
  const saved = useSavedPresets('layout', open);
  const arrangements = arrangementsFor(useEditor((s) => s.project.canvas));
  return (
    <DropdownMenu.Root modal={false} open={open} onOpenChange={setOpen}>
      <DropdownMenu.Trigger asChild>
        <Button look="quiet" className="px-1.5" title="Layout of the range or step">
          Layout <ChevronDown size={12} aria-hidden />
        </Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className={longMenuLook} align="start" sideOffset={4}>
          {LAYOUT_KINDS.map((kind) => (
            <DropdownMenu.Item
              key={kind}
              className={`flex items-center gap-3 ${menuItemLook}`}
              onSelect={() => run(`layout-${kind}`)}
            >
              <LayoutSketch layout={LAYOUTS[kind]} />
              {LAYOUTS[kind].name}
            </DropdownMenu.Item>
          ))}
          {arrangements.map((layout) => (
            <DropdownMenu.Item
              key={layout.name}
              className={`flex items-center gap-3 ${menuItemLook}`}
              onSelect={() => setLayoutHere(new CommandContext(store, null), layout)}
            >
              <LayoutSketch layout={layout} />
              {layout.name}
            </DropdownMenu.Item>
          ))}
          {saved.data?.map(({ id, name, value }) => (
            <DropdownMenu.Item
              key={id}
              className={`flex items-center gap-3 ${menuItemLook}`}
              onSelect={() => setLayoutHere(new CommandContext(store, null), { ...value, name })}
            >
              <LayoutSketch layout={value} />
              <span className="max-w-56 truncate">{name}</span>
            </DropdownMenu.Item>
          ))}
          <DropdownMenu.Item className={menuItemLook} onSelect={() => run('layout-hand')}>
            By hand: drag the boxes on the Picture
          </DropdownMenu.Item>
          <DropdownMenu.Separator className="my-1 border-t border-line" />
          <DropdownMenu.Item className={menuItemLook} onSelect={() => run('suggest-layouts')}>
            Suggest one for each step
          </DropdownMenu.Item>
          <DropdownMenu.Item className={menuItemLook} onSelect={() => run('keep-clear')}>
            Presenter keeps clear of what is shown
          </DropdownMenu.Item>
          <DropdownMenu.Item className={menuItemLook} onSelect={() => run('presenter')}>
            Presenter settings
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
