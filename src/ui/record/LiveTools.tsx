'use client';
import {
  Circle,
  Eraser,
  Highlighter,
  MousePointer2,
  MoveUpRight,
  PenLine,
  Square,
  Trash2,
  Type,
  type LucideIcon,
} from 'lucide-react';
import { LIVE_COLORS, LIVE_WIDTHS } from '@/core/take/palette';
import { LAYOUTS, type LayoutKind } from '@/core/layout/built-in';
import { same } from '@/core/schema/same';
import { useSavedPresets } from '../presets/use-saved-presets';
import { liveIds } from '@/core/take/drawn';
import { IconButton } from '../parts/IconButton';
import type { Tool } from './record-state';
import { useRecordKeyNames } from './actions';
import { useRecord, useRecordStore } from './record-store';

const TOOLS: readonly (readonly [Tool, string, LucideIcon])[] = [
  ['operate', 'Operate', MousePointer2],
  ['pen', 'Pen', PenLine],
  ['marker', 'Marker pen', Highlighter],
  ['arrow', 'Arrow', MoveUpRight],
  ['box', 'Box', Square],
  ['ellipse', 'Ellipse', Circle],
  ['text', 'Text', Type],
  ['eraser', 'Eraser', Eraser],
];

const LAYOUT_SHORT: Record<LayoutKind, string> = {
  corner: 'Corner',
  side: 'Side by side',
  presenter: 'Presenter',
  screen: 'Screen',
};

/** What is drawn and switched live; it is kept as data and can be changed in Edit. */
export function LiveTools() {
  const store = useRecordStore();
  const tool = useRecord((s) => s.tool);
  const color = useRecord((s) => s.color);
  const lineWidth = useRecord((s) => s.lineWidth);
  const layout = useRecord((s) => (s.ownLayout ? null : s.layout));
  const own = useRecord((s) => s.ownLayout);
  const saved = useSavedPresets('layout').data ?? [];
  const set = useRecord((s) => s.set);
  const setLayout = useRecord((s) => s.setLayout);
  const keys = useRecordKeyNames();
  return (
    <div
      className="flex min-h-9 shrink-0 flex-wrap items-center gap-0.5 border-b border-line bg-sheet px-2"
      role="toolbar"
      aria-label="Live"
    >
      {TOOLS.map(([key, label, icon]) => (
        <IconButton
          key={key}
          icon={icon}
          label={label}
          keys={key === 'pen' ? keys.pen : key === 'operate' ? keys.operate : undefined}
          pressed={tool === key}
          onClick={() => set({ tool: key })}
        />
      ))}
      <IconButton
        icon={Trash2}
        label="Clear drawings"
        keys={keys.clear}
        onClick={() => clearDrawings(store.getState())}
      />
      <span className="mx-1 h-4 border-l border-line" />
      {LIVE_COLORS.map(([name, value]) => (
        <button
          key={value}
          aria-label={`Colour ${name}`}
          aria-pressed={color === value}
          title={name}
          onClick={() => set({ color: value })}
          className="grid size-6 shrink-0 place-items-center"
        >
          <span
            className={`size-5 rounded-full border-2 ${color === value ? 'border-action' : 'border-line'}`}
            style={{ background: value }}
          />
        </button>
      ))}
      <select
        aria-label="Width of lines"
        value={lineWidth}
        onChange={(e) => set({ lineWidth: Number(e.target.value) })}
        className="ml-1 rounded-(--radius) border border-line bg-sheet px-1 py-0.5 text-xs"
      >
        {LIVE_WIDTHS.map(([name], i) => (
          <option key={name} value={i}>
            {name}
          </option>
        ))}
      </select>
      <span className="ml-auto flex gap-0.5">
        {(Object.keys(LAYOUT_SHORT) as LayoutKind[]).map((kind) => (
          <button
            key={kind}
            aria-pressed={layout === kind}
            title={`${LAYOUTS[kind].name} (${keys[kind]})`}
            onClick={() => setLayout(kind)}
            className={`rounded-(--radius) border px-1.5 py-0.5 text-xs whitespace-nowrap ${layout === kind ? 'border-action font-semibold text-action' : 'border-transparent text-ink-2 hover:border-line'}`}
          >
            {LAYOUT_SHORT[kind]}
          </button>
        ))}
        {saved.length > 0 && (
          <select
            aria-label="Saved layouts"
            value={saved.find(({ value }) => same(value, own))?.id ?? ''}
            onChange={(e) => {
              const chosen = saved.find(({ id }) => id === e.target.value);
              if (chosen) setLayout(chosen.value);
            }}
            className={`max-w-32 rounded-(--radius) border px-1 py-0.5 text-xs ${own ? 'border-action font-semibold text-action' : 'border-line bg-sheet'}`}
          >
            <option value="" disabled>
              Saved…
            </option>
            {saved.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        )}
      </span>
    </div>
  );
}

/** Erases all that is drawn now. */
export function clearDrawings(
  state: ReturnType<ReturnType<typeof useRecordStore>['getState']>,
): void {
  const ids = liveIds(state.live, state.takeTime(), state.settings.hold || null);
  if (ids.length) state.note({ type: 'erase', ids });
}
