'use client';
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useMemo, useRef } from 'react';
import { useEditor, useEditorStore } from '../edit/store';
import { Button } from '../parts/Button';
import { StepRow } from './StepRow';

const ROW_GUESS = 150;

const stepLabel = (number: number, title: string): string =>
  title ? `Step ${number}: ${title}` : `Step ${number}`;

/**
 * The script: one row a step, what is said beside what happens on screen. Only rows in sight are
 * drawn.
 */
export function StepTable({ onPaste }: { onPaste: () => void }) {
  const store = useEditorStore();
  const steps = useEditor((s) => s.project.steps);
  const ids = useMemo(() => steps.map((s) => s.id), [steps]);
  const scroller = useRef<HTMLDivElement>(null);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );

  const rows = useVirtualizer({
    count: steps.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_GUESS,
    getItemKey: (index) => steps[index]!.id,
    overscan: 6,
  });
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    const to = ids.indexOf(String(over.id));
    store.getState().apply('move-step', { id: String(active.id), to });
  };
  if (!steps.length)
    return (
      <div className="flex flex-col items-center justify-center gap-3 p-10 text-center">
        <p className="max-w-md text-ink-2">
          Say what you will say, and what happens on screen meanwhile. A script that is read in
          pieces is recorded in pieces, and each piece can be done again.
        </p>
        <div className="flex gap-2">
          <Button look="primary" onClick={onPaste}>
            Paste a script
          </Button>
        </div>
        <p className="max-w-md text-xs text-ink-2">
          Recordings made elsewhere need no script: drop them into Edit.
        </p>
      </div>
    );
  return (
    <div ref={scroller} className="min-h-0 overflow-auto" aria-label="Script" role="region">
      <div className="sticky top-0 z-10 grid grid-cols-[2.5rem_minmax(0,1fr)_minmax(0,1fr)] gap-3 border-b border-line bg-paper px-3 py-1.5 text-xs font-semibold text-ink-2">
        <span />
        <span>Narration</span>
        <span>On screen</span>
      </div>
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={onDragEnd}>
        <SortableContext items={ids} strategy={verticalListSortingStrategy}>
          <ol className="relative" style={{ height: rows.getTotalSize() }}>
            {rows.getVirtualItems().map((row) => (
              <li
                key={row.key}
                data-index={row.index}
                ref={rows.measureElement}
                aria-label={stepLabel(row.index + 1, steps[row.index]!.title)}
                className="absolute inset-x-0 top-0"
                style={{ transform: `translateY(${row.start}px)` }}
              >
                <StepRow
                  step={steps[row.index]!}
                  index={row.index}
                  onGo={(to) => rows.scrollToIndex(to)}
                />
              </li>
            ))}
          </ol>
        </SortableContext>
      </DndContext>
    </div>
  );
}
