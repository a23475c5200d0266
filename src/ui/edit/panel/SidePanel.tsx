'use client';
import { Tabs } from 'radix-ui';
import type { Panel } from '../session/state';
import { useEditor } from '../store';
import { DetailsPanel } from './DetailsPanel';
import { FootagePanel } from './footage/FootagePanel';
import { StepsPanel } from './StepsPanel';

const PANELS: readonly (readonly [Panel, string])[] = [
  ['steps', 'Steps'],
  ['footage', 'Footage'],
  ['details', 'Details'],
];

export function SidePanel() {
  const panel = useEditor((s) => s.panel);
  const set = useEditor((s) => s.set);
  return (
    <Tabs.Root
      value={panel}
      onValueChange={(value) => set({ panel: value as Panel })}
      className="grid h-full min-h-0 grid-rows-[32px_minmax(0,1fr)]"
    >
      <Tabs.List
        aria-label="Beside the Picture"
        className="flex border-b border-line bg-sheet px-2"
      >
        {PANELS.map(([value, label]) => (
          <Tabs.Trigger
            key={value}
            value={value}
            className="border-b-2 border-transparent px-3 text-ink-2 data-[state=active]:border-action data-[state=active]:font-semibold data-[state=active]:text-ink"
          >
            {label}
          </Tabs.Trigger>
        ))}
      </Tabs.List>
      <Tabs.Content value="steps" className="min-h-0 overflow-auto">
        <StepsPanel />
      </Tabs.Content>
      <Tabs.Content value="footage" className="min-h-0 overflow-auto">
        <FootagePanel />
      </Tabs.Content>
      <Tabs.Content value="details" className="@container min-h-0 overflow-auto p-3">
        <DetailsPanel />
      </Tabs.Content>
    </Tabs.Root>
  );
}
