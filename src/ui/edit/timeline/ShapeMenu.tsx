'use client';
import {
  Bookmark,
  Check,
  ChevronDown,
  ChevronRight,
  Circle,
  Focus,
  Hash,
  Highlighter,
  Image,
  Keyboard,
  Link,
  MessageSquare,
  MoveUpRight,
  PenLine,
  Slash,
  Square,
  ZoomIn,
  type LucideIcon,
} from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useShallow } from 'zustand/react/shallow';
import { kindOf, KINDS, type CalloutKindName } from '@/core/callout/kinds';
import { Button } from '../../parts/Button';
import { longMenuLook, menuItemLook, menuLook } from '../../parts/menu';
import { useSavedPresets } from '../../presets/use-saved-presets';
import { capital } from '../names';
import { useAddShape } from '../commands/use-add-shape';
import { useEditor } from '../store';
import { useSavedCallout } from '../use-saved-callout';

const ICONS: Readonly<Partial<Record<CalloutKindName, LucideIcon>>> = {
  ...{ arrow: MoveUpRight, line: Slash, box: Square, ellipse: Circle },
  ...{ note: MessageSquare, highlight: Highlighter, spotlight: Focus, count: Hash },
  ...{ lens: ZoomIn, keycaps: Keyboard, link: Link },
};
/** These have buttons of their own. */
const APART: readonly CalloutKindName[] = ['text', 'cover'];

const SHAPES = (Object.keys(KINDS) as CalloutKindName[]).filter(
  (kind) => kindOf({ kind }).create && !APART.includes(kind),
);

const itemLook = `flex items-center gap-3 ${menuItemLook}`;

/** Adds a shape at the playhead: what points at something. */
export function ShapeMenu({ run }: { run: (id: string) => void }) {
  const draws = useEditor((s) => s.drawsShapes);
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
        <DropdownMenu.Content className={`${longMenuLook} min-w-32`} align="start" sideOffset={4}>
          {SHAPES.map((kind) => {
            const Icon = ICONS[kind];
            const { name } = kindOf({ kind });
            return (
              <DropdownMenu.Item key={kind} className={itemLook} onSelect={() => run(name)}>
                {Icon && <Icon size={16} aria-hidden />}
                {capital(name)}
              </DropdownMenu.Item>
            );
          })}
          <Pictures />
          <DropdownMenu.Item className={itemLook} onSelect={() => run('draw-pen')}>
            <PenLine size={16} aria-hidden />
            Draw with the pen
          </DropdownMenu.Item>
          <SavedCallouts />
          <DropdownMenu.Separator className="my-1 border-t border-line" />
          <DropdownMenu.CheckboxItem
            className={itemLook}
            checked={draws}
            onCheckedChange={() => run('draws-shapes')}
          >
            <span className="size-4 border border-current">
              <DropdownMenu.ItemIndicator>
                <Check size={14} aria-hidden />
              </DropdownMenu.ItemIndicator>
            </span>
            Draw it on the Picture
          </DropdownMenu.CheckboxItem>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/** What opens beside an entry of the menu. */
function Beside({
  icon: Icon,
  label,
  entries,
  empty,
}: {
  icon: LucideIcon;
  label: string;
  entries: readonly { readonly id: string; readonly name: string; readonly use: () => void }[];
  /** What is said where there are none. */
  empty: string;
}) {
  return (
    <DropdownMenu.Sub>
      <DropdownMenu.SubTrigger className={itemLook}>
        <Icon size={16} aria-hidden />
        <span className="flex-1">{label}</span>
        <ChevronRight size={14} aria-hidden />
      </DropdownMenu.SubTrigger>
      <DropdownMenu.Portal>
        <DropdownMenu.SubContent className={`${menuLook} max-h-72 max-w-72 overflow-auto`}>
          {entries.map(({ id, name, use }) => (
            <DropdownMenu.Item key={id} className={`${menuItemLook} truncate`} onSelect={use}>
              {name}
            </DropdownMenu.Item>
          ))}
          {!entries.length && (
            <DropdownMenu.Item className={`${menuItemLook} whitespace-normal`} disabled>
              {empty}
            </DropdownMenu.Item>
          )}
        </DropdownMenu.SubContent>
      </DropdownMenu.Portal>
    </DropdownMenu.Sub>
  );
}

/** The stills of the footage, each of which can lie over the recording. */
function Pictures() {
  const add = useAddShape();
  const stills = useEditor(
    useShallow((s) =>
      s.footage.filter(({ facts, status }) => facts?.kind === 'image' && status === 'ready'),
    ),
  );
  return (
    <Beside
      icon={Image}
      label="Picture"
      entries={stills.map(({ id, name }) => ({ id, name, use: () => add({ still: id }) }))}
      empty="Add a picture (PNG, JPEG or WebP) to Footage first."
    />
  );
}

/** Callouts that were saved for all projects. */
function SavedCallouts() {
  const use = useSavedCallout();
  const saved = useSavedPresets('callout').data ?? [];
  return (
    <Beside
      icon={Bookmark}
      label="Saved"
      entries={saved.map(({ id, name, value }) => ({ id, name, use: () => use(value) }))}
      empty="Save a callout in its Details first."
    />
  );
}
