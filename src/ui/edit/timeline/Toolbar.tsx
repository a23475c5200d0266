'use client';
import {
  Blend,
  ChevronsLeftRightEllipsis,
  Clipboard,
  Copy,
  Group,
  History,
  Link2,
  Magnet,
  Maximize2,
  Redo2,
  Scissors,
  Snowflake,
  Undo2,
  VolumeOff,
  Waypoints,
  ZoomIn,
  ZoomOut,
} from 'lucide-react';
import type { LucideIcon } from 'lucide-react';
import { ticksToSeconds } from '@/core/time/ticks';
import { formatTimecode } from '@/core/time/timecode';
import type { Player } from '@/preview/player';
import { Button } from '../../parts/Button';
import { IconButton } from '../../parts/IconButton';
import { editorCommands } from '../commands';
import { rangeOf, useEditor, useEditorStore } from '../store';

const CUTTING: readonly (readonly [id: string, icon: LucideIcon, label: string, keys: string])[] = [
  ['split', Scissors, 'Split at the playhead', 'B'],
  ['copy', Copy, 'Copy', 'Ctrl+C'],
  ['paste', Clipboard, 'Paste at the playhead', 'Ctrl+V'],
  ['close-gaps', ChevronsLeftRightEllipsis, 'Close all gaps', ''],
  ['freeze', Snowflake, 'Freeze frame at the playhead', ''],
  ['dissolve', Blend, 'Dissolve at the nearest cut', ''],
  ['group', Group, 'Group', 'Ctrl+G'],
  ['link', Link2, 'Link clips', ''],
];

const ADDING = {
  framing: 'Framing',
  halo: 'Halo',
  callout: 'Callout',
  cover: 'Cover',
  presenter: 'Presenter',
} as const;

export function Toolbar({ player, onFit }: { player: Player | null; onFit: () => void }) {
  const store = useEditorStore();
  const snapping = useEditor((s) => s.snapping);
  const undoLabel = useEditor((s) => s.history.done.at(-1)?.label);
  const redoLabel = useEditor((s) => s.history.undone.at(-1)?.label);
  const run = (id: string) =>
    editorCommands(store, player)
      .find((c) => c.id === id)
      ?.run();
  return (
    <div className="flex items-center gap-0.5 overflow-hidden border-b border-line bg-sheet px-2">
      <IconButton
        icon={Undo2}
        label={undoLabel ? `Undo: ${undoLabel}` : 'Undo'}
        keys="Ctrl+Z"
        disabled={!undoLabel}
        onClick={() => run('undo')}
      />
      <IconButton
        icon={Redo2}
        label={redoLabel ? `Redo: ${redoLabel}` : 'Redo'}
        keys="Ctrl+Shift+Z"
        disabled={!redoLabel}
        onClick={() => run('redo')}
      />
      <IconButton icon={History} label="Undo history" onClick={() => run('history')} />
      <span className="mx-1 h-4 border-l border-line" />
      {CUTTING.map(([id, icon, label, keys]) => (
        <IconButton key={id} icon={icon} label={label} keys={keys} onClick={() => run(id)} />
      ))}
      <IconButton
        icon={Magnet}
        label="Snapping"
        pressed={snapping}
        onClick={() => run('snapping')}
      />
      <span className="mx-1 h-4 border-l border-line" />
      <Button look="quiet" onClick={() => run('plan')}>
        <Waypoints size={14} aria-hidden /> Plan framings
      </Button>
      {(Object.keys(ADDING) as (keyof typeof ADDING)[]).map((id) => (
        <Button key={id} look="quiet" className="px-1.5" onClick={() => run(id)}>
          {ADDING[id]}
        </Button>
      ))}
      <span className="flex-1" />
      <RangeTools run={run} />
      <IconButton
        icon={ZoomOut}
        label="Smaller timeline scale"
        keys="-"
        onClick={() => run('scale-down')}
      />
      <IconButton
        icon={ZoomIn}
        label="Larger timeline scale"
        keys="+"
        onClick={() => run('scale-up')}
      />
      <IconButton icon={Maximize2} label="Fit the timeline" keys="0" onClick={onFit} />
    </div>
  );
}

/** What the range between in and out is, and what can be done with it. */
function RangeTools({ run }: { run: (id: string) => void }) {
  const range = useEditor((s) => rangeOf(s));
  const rate = useEditor((s) => s.project.canvas.frameRate);
  if (!range) return null;
  return (
    <span
      role="group"
      aria-label="Range"
      className="flex items-center gap-1 border border-line px-1"
    >
      <span
        className="numbers text-xs whitespace-nowrap"
        title={`${formatTimecode(range.start, rate)} to ${formatTimecode(range.end, rate)}`}
      >
        range {ticksToSeconds(range.end - range.start).toFixed(2)} s
      </span>
      <Button
        look="quiet"
        className="px-1.5"
        title="Remove, leave the gap (Delete)"
        onClick={() => run('lift')}
      >
        Lift
      </Button>
      <Button
        look="quiet"
        className="px-1.5"
        title="Remove, close the gap (Shift+Delete)"
        onClick={() => run('ripple')}
      >
        Ripple delete
      </Button>
      <IconButton icon={VolumeOff} label="Silence the range" onClick={() => run('silence')} />
      <Button
        look="quiet"
        className="px-1.5"
        title="Record the words of the range again"
        onClick={() => run('retake')}
      >
        Retake
      </Button>
    </span>
  );
}
