import type { StepWords } from '../edit/outline';

type Column = keyof StepWords;

/** Headings by which the columns of a brought table are known; compared without case. */
const HEADINGS: Readonly<Record<Column, readonly string[]>> = {
  title: ['title', 'step', 'heading', 'name', 'scene', 'section'],
  narration: [
    'narration',
    'voice',
    'script',
    'spoken',
    'text',
    'words',
    'audio',
    'voice over',
    'voiceover',
    'what is said',
  ],
  action: [
    'on screen',
    'screen',
    'action',
    'video',
    'visual',
    'visuals',
    'picture',
    'shot',
    'what happens on screen',
  ],
  notes: ['notes', 'note', 'remarks', 'comments', 'comment'],
};
const NUMBERING = /^(#|no\.?|nr\.?|number|\d+[.)]?)$/i;

const columnOf = (heading: string): Column | null => {
  const said = heading.trim().toLowerCase();
  return (
    (Object.keys(HEADINGS) as Column[]).find((column) => HEADINGS[column].includes(said)) ?? null
  );
};

/** A cell of a table that may reach over several rows or columns. */
export interface SpanningCell {
  readonly text: string;
  readonly rows: number;
  readonly columns: number;
}

/**
 * Rows of a table with merged cells as a plain grid: a merged cell's text stands in its first
 * place, the others are empty.
 */
export function spreadCells(rows: readonly (readonly SpanningCell[])[]): string[][] {
  const grid: string[][] = rows.map(() => []);
  rows.forEach((row, r) => {
    let c = 0;
    for (const cell of row) {
      while (grid[r]![c] !== undefined) c++;
      for (let dr = 0; dr < Math.max(1, cell.rows) && r + dr < rows.length; dr++)
        for (let dc = 0; dc < Math.max(1, cell.columns); dc++)
          grid[r + dr]![c + dc] = dr || dc ? '' : cell.text;
    }
  });
  return grid.map((row) => Array.from(row, (cell) => cell ?? ''));
}

/**
 * Steps out of a table. With a heading row the columns are known by name; without, they are
 * narration and what happens on screen (two columns), or title, narration, screen, notes (more).
 * A row without words of its own belongs to a merged cell above: what it has is added to that step.
 */
export function stepsFromTable(grid: readonly (readonly string[])[]): StepWords[] {
  const rows = grid.filter((row) => row.some((cell) => cell.trim()));
  if (!rows.length) return [];
  const known = rows[0]!.map(columnOf);
  const hasHeading = known.filter(Boolean).length >= Math.min(2, rows[0]!.length);
  const body = hasHeading ? rows.slice(1) : rows;
  const width = Math.max(...rows.map((r) => r.length));
  const columns = hasHeading ? known : withoutHeading(body, width);
  const steps: StepWords[] = [];
  for (const row of body) {
    const words: StepWords = { title: '', narration: '', action: '', notes: '' };
    columns.forEach((column, i) => {
      // Spreadsheets write an apostrophe before what might be a formula.
      const text = (row[i] ?? '').trim().replace(/^'(?=[=+\-@])/, '');
      if (column && text) words[column] = words[column] ? `${words[column]}\n${text}` : text;
    });
    const last = steps[steps.length - 1];
    const continues =
      last &&
      columns.includes('narration') &&
      !words.narration &&
      !words.title &&
      (words.action || words.notes);
    if (continues) {
      last.action = [last.action, words.action].filter(Boolean).join('\n');
      last.notes = [last.notes, words.notes].filter(Boolean).join('\n');
    } else if (Object.values(words).some(Boolean)) steps.push(words);
  }
  return steps;
}

function withoutHeading(rows: readonly (readonly string[])[], width: number): (Column | null)[] {
  const numbered =
    width > 1 && rows.every((row) => !row[0]?.trim() || NUMBERING.test(row[0].trim()));
  const left = width - (numbered ? 1 : 0);
  const columns: Column[] =
    left === 1
      ? ['narration']
      : left === 2
        ? ['narration', 'action']
        : left === 3
          ? ['title', 'narration', 'action']
          : ['title', 'narration', 'action', 'notes'];
  return numbered ? [null, ...columns] : columns;
}
