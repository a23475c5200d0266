'use client';
import { ChevronDown } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { arrangementsFor } from '@/core/layout/arrangements';
import { LAYOUT_KINDS, LAYOUTS } from '@/core/layout/built-in';
import { Button } from '../../parts/Button';
import { longMenuLook, menuItemLook } from '../../parts/menu';
import { arrangementId } from '../commands/layouts';
import { LayoutSketch } from '../LayoutSketch';
import { useEditor } from '../store';

/** Sets the layout of the range, or of the step at the playhead, from small pictures: the built-in
 * ones, others to begin with, and those that were saved. */
export function LayoutMenu({ run }: { run: (id: string) => void }) {
  const saved = useEditor((s) => s.savedLayouts);
  const arrangements = arrangementsFor(useEditor((s) => s.project.canvas));
  return (
    <DropdownMenu.Root modal={false}>
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
              onSelect={() => run(arrangementId(layout))}
            >
              <LayoutSketch layout={layout} />
              {layout.name}
            </DropdownMenu.Item>
          ))}
          {saved.map(({ id, name, value }) => (
            <DropdownMenu.Item
              key={id}
              className={`flex items-center gap-3 ${menuItemLook}`}
              onSelect={() => run(`layout-saved-${id}`)}
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
