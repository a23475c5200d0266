'use client';
import { ClipboardPaste, Download, Plus, Redo2, ScrollText, Undo2 } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useMemo } from 'react';
import { EMPTY_WORDS } from '@/core/edit/outline';
import { projectDuration } from '@/core/project/query';
import { ticksToSeconds } from '@/core/time/ticks';
import { formatClock } from '@/core/time/timecode';
import { countWords } from '@/core/words/count';
import { outlineCsv, outlineMarkdown } from '@/core/words/export';
import { useEditor, useEditorStore } from '../edit/store';
import { Button } from '../parts/Button';
import { IconButton } from '../parts/IconButton';
import { menuItemLook, menuLook } from '../parts/menu';
import { saveAs } from '../parts/save-as';

export function OutlineToolbar({
  onPaste,
  onPrompter,
}: {
  onPaste: () => void;
  onPrompter: () => void;
}) {
  const store = useEditorStore();
  const id = useEditor((s) => s.id);
  const name = useEditor((s) => s.name);
  const steps = useEditor((s) => s.project.steps);
  const speed = useEditor((s) => s.project.script.wordsPerMinute);
  const recorded = useEditor((s) => ticksToSeconds(projectDuration(s.project)));
  const undoLabel = useEditor((s) => s.history.done.at(-1)?.label);
  const redoLabel = useEditor((s) => s.history.undone.at(-1)?.label);
  const words = useMemo(
    () => steps.reduce((sum, step) => sum + countWords(step.narration), 0),
    [steps],
  );
  const add = () =>
    store.getState().apply('insert-steps', { at: null, words: [EMPTY_WORDS], replace: false });
  return (
    <div className="flex items-center gap-2 border-b border-line bg-sheet px-3">
      <Button look="primary" onClick={add}>
        <Plus size={14} aria-hidden /> Step
      </Button>
      <Button onClick={onPaste}>
        <ClipboardPaste size={14} aria-hidden /> Paste a script
      </Button>
      <Button onClick={onPrompter} disabled={!words}>
        <ScrollText size={14} aria-hidden /> Prompter
      </Button>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger asChild>
          <Button disabled={!steps.length}>
            <Download size={14} aria-hidden /> Save script
          </Button>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content align="start" sideOffset={4} className={menuLook}>
            <DropdownMenu.Item
              className={menuItemLook}
              onSelect={() => saveAs(`${name}.md`, 'text/markdown', outlineMarkdown(name, steps))}
            >
              Markdown
            </DropdownMenu.Item>
            <DropdownMenu.Item
              className={menuItemLook}
              onSelect={() => saveAs(`${name}.csv`, 'text/csv', `\uFEFF${outlineCsv(steps)}`)}
            >
              CSV, for a spreadsheet
            </DropdownMenu.Item>
            <DropdownMenu.Item
              className={menuItemLook}
              onSelect={() => window.open(`/projects/${id}/outline/print`, '_blank')}
            >
              Page to print
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      <IconButton
        icon={Undo2}
        label={undoLabel ? `Undo: ${undoLabel}` : 'Undo'}
        keys="Ctrl+Z"
        disabled={!undoLabel}
        onClick={() => store.getState().undo()}
      />
      <IconButton
        icon={Redo2}
        label={redoLabel ? `Redo: ${redoLabel}` : 'Redo'}
        keys="Ctrl+Shift+Z"
        disabled={!redoLabel}
        onClick={() => store.getState().redo()}
      />
      <span className="flex-1" />
      <span className="numbers text-xs text-ink-2" data-testid="outline-totals">
        {steps.length} steps · {words} words · planned {formatClock((words / speed) * 60)} ·
        recorded {formatClock(recorded)}
      </span>
    </div>
  );
}
