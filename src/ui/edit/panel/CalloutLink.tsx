'use client';
import { ArrowRight, SquareArrowOutUpRight } from 'lucide-react';
import { useState } from 'react';
import { addressOf, link, type LinkTarget } from '@/core/callout/kinds/link';
import type { Callout } from '@/core/project/model';
import { Button } from '../../parts/Button';
import { SelectField, TextField } from '../../parts/fields';
import { tellFault } from '../../shell/notices-store';
import { useSeek } from '../picture/use-player';
import { useEditor } from '../store';
import { TextOf } from './TextOf';

/** A step in the list of where a link can lead has this before its id. */
const STEP = 'step ';

/** Where a link leads, and what a player says of it. */
export function CalloutLink({ callout }: { callout: Callout & { kind: 'link' } }) {
  const { id, label, target } = callout;
  const apply = useEditor((s) => s.apply);
  const seek = useSeek();
  const steps = useEditor((s) => s.project.steps);
  // An address that is still to be typed is nothing that could be kept.
  const [typing, setTyping] = useState(false);
  const step = target && 'stepId' in target ? steps.find((s) => s.id === target.stepId) : null;
  const address = target && 'address' in target ? target.address : null;
  const lead = (to: LinkTarget | null) => apply('change-callout', { id, change: { target: to } });
  const isTyped = typing || address !== null;
  const value = isTyped ? 'address' : target ? STEP + (target as { stepId: string }).stepId : '';
  return (
    <>
      <SelectField
        label="Leads to"
        value={value}
        options={[
          ['', 'Nowhere yet'],
          ['address', 'An address'],
          ...(target && 'stepId' in target && !step
            ? [[value, 'A step that is gone'] as const]
            : []),
          ...steps.map((s, i) => [STEP + s.id, `${i + 1}. ${s.title || 'Step'}`] as const),
        ]}
        onChange={(to) => {
          setTyping(to === 'address');
          if (to !== 'address') lead(to ? { stepId: to.slice(STEP.length) } : null);
        }}
      />
      {isTyped && (
        <TextField
          label="Address"
          value={address ?? ''}
          focus={typing && address === null}
          onDone={(typed) => {
            const found = addressOf(typed);
            if (!found)
              return tellFault('That is no address that can be opened: https, http or mail.');
            setTyping(false);
            lead({ address: found });
          }}
        />
      )}
      <TextOf
        id={id}
        label="What it says"
        value={label}
        most={link.schema.properties.label.maxLength}
        onDone={(words) => apply('change-callout', { id, change: { label: words } })}
      />
      {address !== null && (
        <a
          href={address}
          target="_blank"
          rel="noopener noreferrer"
          className="inline-flex min-h-6 items-center gap-1.5 text-sm underline"
        >
          <SquareArrowOutUpRight size={14} aria-hidden /> Open it
        </a>
      )}
      {step && step.start !== null && (
        <Button onClick={() => seek(step.start!)}>
          <ArrowRight size={14} aria-hidden /> Go there
        </Button>
      )}
    </>
  );
}
