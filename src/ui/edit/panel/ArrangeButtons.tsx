'use client';
import {
  AlignCenterHorizontal,
  AlignCenterVertical,
  AlignEndHorizontal,
  AlignEndVertical,
  AlignHorizontalSpaceBetween,
  AlignStartHorizontal,
  AlignStartVertical,
  AlignVerticalSpaceBetween,
  ListOrdered,
  type LucideIcon,
} from 'lucide-react';
import type { Arrangement } from '@/core/callout/align';
import { Button } from '../../parts/Button';
import { ARRANGEMENTS, arrangeId, STAGGER_SECONDS } from '../commands/arrange';
import { useRun } from '../commands/use-run';

const ICONS: Readonly<Record<Arrangement, LucideIcon>> = {
  left: AlignStartVertical,
  middle: AlignCenterVertical,
  right: AlignEndVertical,
  top: AlignStartHorizontal,
  center: AlignCenterHorizontal,
  bottom: AlignEndHorizontal,
  across: AlignHorizontalSpaceBetween,
  down: AlignVerticalSpaceBetween,
};

/** Brings the callouts that are selected in line. */
export function ArrangeButtons() {
  const run = useRun();
  return (
    <div className="flex flex-wrap gap-1" role="group" aria-label="Arrange">
      {ARRANGEMENTS.map(([how, label]) => {
        const Icon = ICONS[how];
        return (
          <Button
            key={how}
            look="quiet"
            className="px-1.5"
            title={label}
            aria-label={label}
            onClick={() => run(arrangeId(how))}
          >
            <Icon size={16} aria-hidden />
          </Button>
        );
      })}
      <Button
        look="quiet"
        className="px-1.5"
        title={`One after the other: each comes ${STAGGER_SECONDS} s later`}
        aria-label="One after the other"
        onClick={() => run('stagger')}
      >
        <ListOrdered size={16} aria-hidden />
      </Button>
    </div>
  );
}
