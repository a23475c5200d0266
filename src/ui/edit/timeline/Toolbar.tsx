'use client';
import {
  Blend,
  ChevronsLeftRightEllipsis,
  Clipboard,
  Copy,
  FoldHorizontal,
  Group,
  History,
  Link2,
  Magnet,
  Maximize2,
  Redo2,
  Scissors,
  Snowflake,
  Trash2,
  Undo2,
  VolumeOff,
  VolumeX,
  Waypoints,
  ZoomIn,
  ZoomOut,
} from 'lucide-react';
import type { LucideIcon } from 'lucide-react';
import { assertNever } from '@/core/assert-never';
import { ticksToSeconds } from '@/core/time/ticks';
import { formatTimecode } from '@/core/time/timecode';
import type { Player } from '@/preview/player';
import { shownKeys } from '../../keys/shown';
import { Button } from '../../parts/Button';
import { IconButton } from '../../parts/IconButton';
import { useRoving } from '../../parts/use-roving';
import type { Command } from '../commands';
import { useCommands } from '../commands/use-commands';
import type { Selection } from '../session/state';
import { rangeOf, useEditor } from '../store';
import { LayoutMenu } from './LayoutMenu';
import { ShapeMenu } from './ShapeMenu';

type Tool = readonly [id: string, icon: LucideIcon, label: string];

const SPLIT: Tool = ['split', Scissors, 'Split'];
const DELETE: Tool = ['lift', Trash2, 'Delete'];
const COPY: Tool = ['copy', Copy, 'Copy'];
const PASTE: Tool = ['paste', Clipboard, 'Paste'];

const ON_CLIPS: readonly Tool[] = [
  SPLIT,
  DELETE,
  ['ripple', FoldHorizontal, 'Ripple delete'],
  COPY,
  ['freeze', Snowflake, 'Freeze'],
  ['mute', VolumeX, 'Mute'],
];
const ON_SEVERAL: readonly Tool[] = [
  DELETE,
  ['ripple', FoldHorizontal, 'Ripple delete'],
  COPY,
  ['group', Group, 'Group'],
  ['link', Link2, 'Link'],
];
const ON_NOTHING: readonly Tool[] = [
  SPLIT,
  PASTE,
  ['close-gaps', ChevronsLeftRightEllipsis, 'Close gaps'],
  ['dissolve', Blend, 'Dissolve'],
  ['freeze', Snowflake, 'Freeze'],
];

/** What applies to what is selected. */
function toolsFor(kind: NonNullable<Selection>['kind'] | null, several: boolean): readonly Tool[] {
  switch (kind) {
    case 'clip':
      return several ? ON_SEVERAL : ON_CLIPS;
    case 'framings':
    case 'callouts':
    case 'pointer':
    case 'layouts':
      return [DELETE, COPY, PASTE];
    case 'step':
    case 'marker':
      return [DELETE];
    case 'lane':
    case 'presenter':
    case 'project':
    case 'plan':
    case 'suggestions':
    case 'path':
    case 'private':
    case null:
      return ON_NOTHING;
    default:
      return assertNever(kind);
  }
}

const MAKING: readonly (readonly [id: string, label: string])[] = [
  ['framing', 'Framing'],
  ['halo', 'Halo'],
  ['callout', 'Callout'],
  ['cover', 'Cover'],
];

const Rule = () => <span className="mx-1 h-4 shrink-0 border-l border-line" />;

/** At the left what makes things, then what applies to what is selected, at the right the scale. */
export function Toolbar({ player, onFit }: { player: Player | null; onFit: () => void }) {
  const snapping = useEditor((s) => s.snapping);
  const undoLabel = useEditor((s) => s.history.done.at(-1)?.label);
  const redoLabel = useEditor((s) => s.history.undone.at(-1)?.label);
  const kind = useEditor((s) => s.selection?.kind ?? null);
  const several = useEditor((s) => s.also.length > 0);
  const commands = useCommands(player);
  const run = (id: string) => commands.get(id)?.run();
  const keysOf = (id: string) => commands.get(id)?.keys[0];
  const bar = useRoving<HTMLDivElement>();
  // What can be done with a range stands with it.
  const ranged = useEditor((s) => s.selection === null && rangeOf(s) !== null);
  const tools = ranged ? [] : toolsFor(kind, several);
  return (
    <div
      {...bar}
      role="toolbar"
      aria-label="Edit"
      className="@container flex items-center gap-0.5 overflow-hidden border-b border-line bg-sheet px-2"
    >
      <IconButton
        icon={Undo2}
        label={undoLabel ? `Undo: ${undoLabel}` : 'Undo'}
        keys={keysOf('undo')}
        disabled={!undoLabel}
        onClick={() => run('undo')}
      />
      <IconButton
        icon={Redo2}
        label={redoLabel ? `Redo: ${redoLabel}` : 'Redo'}
        keys={keysOf('redo')}
        disabled={!redoLabel}
        onClick={() => run('redo')}
      />
      <IconButton icon={History} label="Undo history" onClick={() => run('history')} />
      <Rule />
      <Button
        look="quiet"
        className="px-1.5"
        title={titleOf(commands.get('plan'))}
        aria-label="Plan framings"
        onClick={() => run('plan')}
      >
        <Waypoints size={14} aria-hidden />
        <span className="hidden @5xl:inline">Plan framings</span>
      </Button>
      {MAKING.map(([id, label]) => (
        <Button
          key={id}
          look="quiet"
          className="px-1.5"
          title={titleOf(commands.get(id))}
          onClick={() => run(id)}
        >
          {label}
        </Button>
      ))}
      <ShapeMenu run={run} />
      <LayoutMenu run={run} />
      <Rule />
      <span role="group" aria-label="What is selected" className="flex items-center gap-0.5">
        {tools.map(([id, icon, label]) => (
          <ToolButton
            key={id}
            icon={icon}
            label={label}
            command={commands.get(id)}
            onClick={() => run(id)}
          />
        ))}
      </span>
      <span className="flex-1" />
      <RangeTools commands={commands} />
      <IconButton
        icon={Magnet}
        label="Snapping"
        pressed={snapping}
        onClick={() => run('snapping')}
      />
      <IconButton
        icon={ZoomOut}
        label="Smaller timeline scale"
        keys={keysOf('scale-down')}
        onClick={() => run('scale-down')}
      />
      <IconButton
        icon={ZoomIn}
        label="Larger timeline scale"
        keys={keysOf('scale-up')}
        onClick={() => run('scale-up')}
      />
      <IconButton
        icon={Maximize2}
        label="Fit the timeline"
        keys={keysOf('scale-fit')}
        onClick={onFit}
      />
    </div>
  );
}

const titleOf = (command: Command | undefined): string | undefined =>
  command && [command.label, ...command.keys.slice(0, 1).map((k) => `(${shownKeys(k)})`)].join(' ');

/** A tool with its word where there is room for it. */
function ToolButton({
  icon: Icon,
  label,
  command,
  onClick,
}: {
  icon: LucideIcon;
  label: string;
  command: Command | undefined;
  onClick: () => void;
}) {
  return (
    <Button
      look="quiet"
      className="px-1.5"
      title={titleOf(command)}
      aria-label={label}
      onClick={onClick}
    >
      <Icon size={14} aria-hidden />
      <span className="hidden @6xl:inline">{label}</span>
    </Button>
  );
}

/** What the range between in and out is, and what can be done with it. */
function RangeTools({ commands }: { commands: ReadonlyMap<string, Command> }) {
  const run = (id: string) => commands.get(id)?.run();
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
        <span className="hidden @5xl:inline">range </span>
        {ticksToSeconds(range.end - range.start).toFixed(2)} s
      </span>
      <Button
        look="quiet"
        className="px-1.5"
        title={titleOf(commands.get('lift'))}
        onClick={() => run('lift')}
      >
        Lift
      </Button>
      <Button
        look="quiet"
        className="px-1.5"
        title={titleOf(commands.get('ripple'))}
        aria-label="Ripple delete"
        onClick={() => run('ripple')}
      >
        Ripple<span className="hidden @5xl:inline"> delete</span>
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
