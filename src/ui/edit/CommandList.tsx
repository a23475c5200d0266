'use client';
import { Type } from '@sinclair/typebox';
import { Command as List } from 'cmdk';
import { useState } from 'react';
import type { Player } from '@/preview/player';
import { shownKeys } from '../keys/shown';
import { Dialog } from '../parts/Dialog';
import { inputLook } from '../parts/fields';
import { keep, kept } from '../parts/kept';
import { commandGroups, type Command } from './commands';
import { useEditorStore } from './store';

interface Props {
  readonly open: boolean;
  readonly onClose: () => void;
  readonly player: Player | null;
}

/** Where the browser keeps what was done last, and how much of it. */
const KEPT_AS = 'vistum-recent-commands';
const MOST_RECENT = 5;

const Recent = Type.Array(Type.String());

const recentIds = (): readonly string[] => kept(KEPT_AS, Recent) ?? [];

const keepRecent = (id: string): void =>
  keep(KEPT_AS, [id, ...recentIds().filter((other) => other !== id)].slice(0, MOST_RECENT));

/** Every command by name; typing narrows the list, Enter does the marked one. */
export function CommandList({ open, onClose, player }: Props) {
  const store = useEditorStore();
  const [filter, setFilter] = useState('');
  const words = filter.toLowerCase().split(/\s+/);
  const matches = ({ id, label }: Command) =>
    id !== 'commands' && words.every((word) => label.toLowerCase().includes(word));
  const groups = commandGroups(store, player)
    .map(({ name, commands }) => ({ name, commands: commands.filter(matches) }))
    .filter(({ commands }) => commands.length > 0);
  const known = new Map(groups.flatMap(({ commands }) => commands.map((c) => [c.id, c])));
  const recent = filter ? [] : recentIds().flatMap((id) => known.get(id) ?? []);
  const shown = recent.length ? [{ name: 'Recent', commands: recent }, ...groups] : groups;
  const close = () => {
    setFilter('');
    onClose();
  };
  const run = (command: Command) => {
    keepRecent(command.id);
    close();
    // After the dialog has gone and given the focus back.
    setTimeout(command.run);
  };
  return (
    <Dialog
      open={open}
      onClose={close}
      title="Commands"
      description="Type to narrow the list, Enter to do the marked one."
    >
      <List shouldFilter={false} label="Commands" loop>
        <List.Input
          autoFocus
          aria-label="Command"
          className={inputLook}
          value={filter}
          onValueChange={setFilter}
        />
        <List.List className="mt-2 max-h-80 overflow-auto">
          <List.Empty className="px-2 py-1 text-ink-2">No command has these words.</List.Empty>
          {shown.map(({ name, commands }) => (
            <List.Group
              key={name}
              heading={name}
              className="[&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:text-xs [&_[cmdk-group-heading]]:text-ink-2"
            >
              {commands.map((command) => (
                <List.Item
                  key={command.id}
                  value={`${name} ${command.id}`}
                  onSelect={() => run(command)}
                  className="flex w-full cursor-default justify-between gap-4 px-2 py-1 data-[selected=true]:bg-action data-[selected=true]:text-on-action"
                >
                  <span>{command.label}</span>
                  <span className="numbers">{command.keys.map(shownKeys).join('  ')}</span>
                </List.Item>
              ))}
            </List.Group>
          ))}
        </List.List>
      </List>
    </Dialog>
  );
}
