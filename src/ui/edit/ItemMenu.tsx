'use client';
import { ContextMenu } from 'radix-ui';
import { Fragment, useState, type MouseEvent, type ReactElement } from 'react';
import type { Project } from '@/core/project/model';
import type { Player } from '@/preview/player';
import { shownKeys } from '../keys/shown';
import { menuItemLook, menuLook } from '../parts/menu';
import { editorCommands, type Command } from './commands';
import { commandsFor } from './commands/for-selection';
import type { Selection } from './session/state';
import { selectionOf } from './session/selection-of';
import { useEditorStore } from './store';
import { selectedItems } from './timeline/selecting';

/** What of the timeline an element stands for; null for empty room. */
function itemOf(element: Element, project: Project): Selection {
  const found = element.closest<HTMLElement>(
    '[data-clip],[data-item],[data-step],[data-marker],[data-lane-header]',
  );
  if (!found) return null;
  const { clip, item, step, marker, laneHeader } = found.dataset;
  if (step) return { id: step, kind: 'step' };
  if (marker) return { id: marker, kind: 'marker' };
  if (laneHeader) return { id: laneHeader, kind: 'lane' };
  return selectionOf(project, clip ?? item ?? null);
}

/**
 * What can be done with the thing that was pressed with the right button, or that had the focus
 * when the menu key was pressed: it is selected, and its commands are offered.
 */
export function ItemMenu({
  player,
  onOpen,
  children,
}: {
  player: Player | null;
  /** Selects what is pressed, where that is nothing of the timeline. */
  onOpen?: (event: MouseEvent) => void;
  children: ReactElement;
}) {
  const store = useEditorStore();
  const [groups, setGroups] = useState<readonly (readonly Command[])[]>([]);
  const open = (event: MouseEvent) => {
    const { project, select } = store.getState();
    const item = itemOf(event.target as Element, project);
    // Several that are selected stay so.
    const chosen = selectedItems(store.getState());
    if (onOpen) onOpen(event);
    else if (!item || !('id' in item) || !chosen.includes(item.id)) select(item);
    const all = new Map(editorCommands(store, player).map((c) => [c.id, c]));
    setGroups(
      commandsFor(store.getState())
        .map((ids) => ids.flatMap((id) => all.get(id) ?? []))
        .filter((group) => group.length > 0),
    );
  };
  return (
    <ContextMenu.Root modal={false}>
      <ContextMenu.Trigger asChild onContextMenu={open}>
        {children}
      </ContextMenu.Trigger>
      <ContextMenu.Portal>
        <ContextMenu.Content
          aria-label="What can be done"
          className={`${menuLook} max-h-(--radix-context-menu-content-available-height) min-w-56 overflow-auto`}
        >
          {groups.map((group, i) => (
            <Fragment key={group[0]!.id}>
              {i > 0 && <ContextMenu.Separator className="my-1 border-t border-line" />}
              {group.map((command) => (
                <ContextMenu.Item
                  key={command.id}
                  className={`flex justify-between gap-6 ${menuItemLook}`}
                  // After the menu has gone and given the focus back.
                  onSelect={() => setTimeout(command.run)}
                >
                  {command.label}
                  <span className="numbers">{command.keys.slice(0, 1).map(shownKeys)}</span>
                </ContextMenu.Item>
              ))}
            </Fragment>
          ))}
          {!groups.length && (
            <ContextMenu.Label className="px-2 py-1 text-ink-2">
              Its settings are in Details.
            </ContextMenu.Label>
          )}
        </ContextMenu.Content>
      </ContextMenu.Portal>
    </ContextMenu.Root>
  );
}
