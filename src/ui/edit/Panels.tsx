'use client';
import { useEffect, type ReactNode } from 'react';
import { Group, Panel, Separator, useDefaultLayout, usePanelRef } from 'react-resizable-panels';
import { keepText, keptText } from '../parts/kept';
import { useEditor } from './store';

/** Least sizes in CSS pixels, so that nothing becomes useless. */
const LEAST = { picture: 200, side: 220, timeline: 96, above: 160 } as const;

const divider =
  'bg-line transition-colors duration-150 hover:bg-action data-[separator=active]:bg-action focus-visible:bg-action';

/** Where the sizes are kept. */
const storage = { getItem: keptText, setItem: keepText };

/**
 * Picture and panel side by side over the timeline. The dividers between them are dragged, or moved
 * with the arrow keys; their places are kept.
 */
export function Panels({
  picture,
  side,
  timeline,
}: {
  picture: ReactNode;
  side: ReactNode;
  timeline: ReactNode;
}) {
  const large = useEditor((s) => s.large);
  const rows = useDefaultLayout({
    ...{ id: 'vistum-rows', panelIds: ['panel-above', 'panel-timeline'], storage },
    onlySaveAfterUserInteractions: true,
  });
  const columns = useDefaultLayout({
    ...{ id: 'vistum-columns', panelIds: ['panel-picture', 'panel-side'], storage },
    onlySaveAfterUserInteractions: true,
  });
  const [sidePanel, timelinePanel] = [usePanelRef(), usePanelRef()];
  useEffect(() => {
    for (const { current: panel } of [sidePanel, timelinePanel])
      if (panel && panel.isCollapsed() !== large)
        if (large) panel.collapse();
        else panel.expand();
  }, [large, sidePanel, timelinePanel]);
  return (
    <Group orientation="vertical" {...rows}>
      <Panel id="panel-above" minSize={LEAST.above}>
        <Group {...columns}>
          <Panel id="panel-picture" minSize={LEAST.picture} defaultSize="58%">
            {picture}
          </Panel>
          <Separator className={`w-px ${divider}`} aria-label="Between Picture and panel" />
          <Panel
            id="panel-side"
            panelRef={sidePanel}
            minSize={LEAST.side}
            defaultSize="42%"
            collapsible
            collapsedSize={0}
          >
            {side}
          </Panel>
        </Group>
      </Panel>
      <Separator className={`h-px ${divider}`} aria-label="Between Picture and timeline" />
      <Panel
        id="panel-timeline"
        panelRef={timelinePanel}
        minSize={LEAST.timeline}
        defaultSize={344}
        groupResizeBehavior="preserve-pixel-size"
        collapsible
        collapsedSize={0}
      >
        {timeline}
      </Panel>
    </Group>
  );
}
