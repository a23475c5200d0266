'use client';
import { useSortable } from '@dnd-kit/sortable';
import {
  ArrowDown,
  ArrowUp,
  Combine,
  GripVertical,
  SquareSplitVertical,
  Trash2,
} from 'lucide-react';
import { memo, useRef, type KeyboardEvent } from 'react';
import { EMPTY_WORDS } from '@/core/edit/outline';
import type { Step } from '@/core/project/model';
import { undoAction } from '../edit/undo-action';
import { useEditorStore } from '../edit/store';
import { IconButton } from '../parts/IconButton';
import { tell } from '../shell/notices-store';
import { DraftArea } from './DraftArea';
import { StepStatusLine } from './StepStatusLine';

/** One step of the script. */
export const StepRow = memo(function StepRow({
  step,
  index,
  onGo,
}: {
  step: Step;
  index: number;
  onGo: (index: number) => void;
}) {
  const store = useEditorStore();
  const narration = useRef<HTMLTextAreaElement>(null);
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, isDragging } =
    useSortable({ id: step.id });
  const number = index + 1;
  const { apply } = store.getState();
  const focus = (to: number) => {
    onGo(to);
    setTimeout(
      () => document.querySelector<HTMLTextAreaElement>(`[data-narration="${to}"]`)?.focus(),
      60,
    );
  };
  const change = (column: 'title' | 'narration' | 'action' | 'notes') => (value: string) =>
    apply('change-step', { id: step.id, change: { [column]: value } }, true);
  const split = () => {
    const at = narration.current?.selectionStart ?? 0;
    if (apply('split-step', { id: step.id, at })) focus(index + 1);
  };
  const join = () => {
    if (apply('join-step', { id: step.id })) focus(index - 1);
  };
  const move = (by: number) => {
    if (apply('move-step', { id: step.id, to: Math.max(0, index + by) }))
      focus(Math.max(0, index + by));
  };
  const remove = () => {
    if (apply('remove-step', { id: step.id }))
      tell(`Step ${number} was removed.`, undoAction(store));
  };
  const onKey = (event: KeyboardEvent<HTMLElement>) => {
    const act = (work: () => void) => {
      event.preventDefault();
      (event.target as HTMLElement).blur();
      work();
    };
    if (event.altKey && event.key === 'ArrowUp') act(() => move(-1));
    else if (event.altKey && event.key === 'ArrowDown') act(() => move(1));
    else if (event.altKey && event.key === 'Enter')
      act(() => {
        apply('insert-steps', { at: index + 1, words: [EMPTY_WORDS], replace: false });
        focus(index + 1);
      });
    else if (event.target === narration.current) {
      const { selectionStart, selectionEnd } = narration.current!;
      if ((event.ctrlKey || event.metaKey) && event.key === 'Enter') act(split);
      else if (event.key === 'Backspace' && selectionStart === 0 && selectionEnd === 0 && index > 0)
        act(join);
    }
  };
  return (
    <div
      ref={setNodeRef}
      className={`group grid grid-cols-[2.5rem_minmax(0,1fr)_minmax(0,1fr)] gap-x-3 gap-y-1 border-b border-line px-3 py-2 ${isDragging ? 'relative z-20 bg-sheet shadow-md' : ''}`}
      style={transform ? { transform: `translateY(${transform.y}px)` } : undefined}
      onKeyDown={onKey}
    >
      <div className="row-span-3 flex flex-col items-center gap-1">
        <span className="numbers text-base font-semibold">{number}</span>
        <button
          ref={setActivatorNodeRef}
          {...attributes}
          {...listeners}
          aria-label={`Move step ${number}`}
          title="Drag to move (or Alt+arrow up and down)"
          className="cursor-grab text-ink-2"
        >
          <GripVertical size={16} aria-hidden />
        </button>
      </div>
      <DraftArea
        label={`Title of step ${number}`}
        value={step.title}
        onDone={change('title')}
        oneLine
        placeholder="Title"
        strong
      />
      <div className="flex items-center justify-between gap-2">
        <StepStatusLine step={step} />
        <span className="flex opacity-60 group-focus-within:opacity-100 group-hover:opacity-100">
          <IconButton
            icon={SquareSplitVertical}
            label={`Split step ${number} at the caret`}
            keys="Ctrl+Enter"
            onClick={split}
          />
          <IconButton
            icon={Combine}
            label={`Join step ${number} to the one before`}
            disabled={!index}
            onClick={join}
          />
          <IconButton
            icon={ArrowUp}
            label={`Move step ${number} up`}
            keys="Alt+↑"
            disabled={!index}
            onClick={() => move(-1)}
          />
          <IconButton
            icon={ArrowDown}
            label={`Move step ${number} down`}
            keys="Alt+↓"
            onClick={() => move(1)}
          />
          <IconButton icon={Trash2} label={`Remove step ${number}`} onClick={remove} />
        </span>
      </div>
      <DraftArea
        ref={narration}
        label={`Narration of step ${number}`}
        value={step.narration}
        onDone={change('narration')}
        placeholder="What is said"
        data-narration={index}
      />
      <DraftArea
        label={`On screen in step ${number}`}
        value={step.action}
        onDone={change('action')}
        placeholder="What happens on screen"
      />
      <div className="col-span-2 col-start-2">
        <DraftArea
          label={`Notes of step ${number}`}
          value={step.notes}
          onDone={change('notes')}
          placeholder="Notes"
          small
        />
      </div>
    </div>
  );
});
