import { spreadCells } from '@/core/words/table';

/** A script as it was brought: its text, and its cells when it came as a table. */
export interface Pasted {
  readonly text: string;
  readonly grid: readonly (readonly string[])[] | null;
}

/** Text of a cell with its line breaks, as it looks on the page. */
function cellText(cell: Element): string {
  const copy = cell.cloneNode(true) as Element;
  for (const br of copy.querySelectorAll('br')) br.replaceWith('\n');
  for (const block of copy.querySelectorAll('p,div,li')) block.append('\n');
  return (copy.textContent ?? '')
    .replace(/[ \t\u00a0]+/g, ' ')
    .replace(/ ?\n ?/g, '\n')
    .replace(/\n{2,}/g, '\n')
    .trim();
}

/** The first table of an HTML text as a grid, merged cells spread out; null when there is none. */
export function gridOfHtml(html: string): string[][] | null {
  if (!/<table/i.test(html)) return null;
  const table = new DOMParser().parseFromString(html, 'text/html').querySelector('table');
  if (!table) return null;
  const rows = [...table.rows].map((row) =>
    [...row.cells].map((cell) => ({
      text: cellText(cell),
      rows: cell.rowSpan || 1,
      columns: cell.colSpan || 1,
    })),
  );
  return spreadCells(rows);
}

/** What was copied: a table out of a document or spreadsheet, or plain text. */
export function readClipboard(data: DataTransfer | null): Pasted | null {
  const text = data?.getData('text/plain') ?? '';
  const grid = gridOfHtml(data?.getData('text/html') ?? '');
  return text.trim() || grid ? { text, grid } : null;
}
