'use client';
import { Plus } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { LANE_KINDS, type LaneKind } from '@/core/project/model';
import { menuItemLook, menuLook } from '../../parts/menu';
import { useEditor } from '../store';

const NAMES: Record<LaneKind, string> = {
  presenter: 'Presenter',
  screen: 'Screen',
  voice: 'Voice',
  music: 'Music',
  computer: 'Computer sound',
};

/** Adds a lane of a kind in front of the others of its kind. */
export function AddLane() {
  const apply = useEditor((s) => s.apply);
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger
        className="flex items-center gap-1 text-ink-2 hover:text-ink"
        aria-label="Add a lane"
        title="Add a lane"
      >
        <Plus size={13} aria-hidden /> Lane
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className={`${menuLook} min-w-36`} align="start" sideOffset={4}>
          {LANE_KINDS.map((kind) => (
            <DropdownMenu.Item
              key={kind}
              className={menuItemLook}
              onSelect={() => apply('add-lane', { kind })}
            >
              {NAMES[kind]}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
