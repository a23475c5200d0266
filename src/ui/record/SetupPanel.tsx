'use client';
import { Accordion } from 'radix-ui';
import { ChevronDown } from 'lucide-react';
import type { ReactNode } from 'react';
import { AreaSettings } from './AreaSettings';
import { CameraSettings } from './CameraSettings';
import { MicrophoneSettings } from './MicrophoneSettings';
import { SourceRows } from './SourceRows';
import { TakeSettings } from './TakeSettings';

/** What is recorded, and how: sources first, the rest folded away until it is wanted. */
export function SetupPanel() {
  return (
    <aside className="min-h-0 overflow-auto" aria-label="Set up">
      <SourceRows />
      <Accordion.Root type="multiple" defaultValue={['microphone']}>
        <Section value="microphone" title="Microphone check">
          <MicrophoneSettings />
        </Section>
        <Section value="area" title="Area">
          <AreaSettings />
        </Section>
        <Section value="camera" title="Camera picture">
          <CameraSettings />
        </Section>
        <Section value="take" title="Take">
          <TakeSettings />
        </Section>
      </Accordion.Root>
    </aside>
  );
}

function Section({
  value,
  title,
  children,
}: {
  value: string;
  title: string;
  children: ReactNode;
}) {
  return (
    <Accordion.Item value={value} className="border-b border-line">
      <Accordion.Header>
        <Accordion.Trigger className="group flex w-full items-center justify-between px-3 py-2 text-left font-semibold">
          {title}
          <ChevronDown
            size={14}
            className="transition-transform group-data-[state=open]:rotate-180"
            aria-hidden
          />
        </Accordion.Trigger>
      </Accordion.Header>
      <Accordion.Content className="px-3 pb-3">{children}</Accordion.Content>
    </Accordion.Item>
  );
}
