import Papa from 'papaparse';
import type { StepWords } from '../edit/outline';

const cell = (text: string) =>
  text.replace(/\\/g, '\\\\').replace(/\|/g, '\\|').replace(/\n/g, '<br>');

/**
 * The outline as a Markdown table under the project's name; other programs and `parseScript` read
 * it.
 */
export function outlineMarkdown(name: string, steps: readonly StepWords[]): string {
  const rows = steps.map(
    (s, i) =>
      `| ${[String(i + 1), s.title, s.narration, s.action, s.notes].map(cell).join(' | ')} |`,
  );
  return [
    `# ${name}`,
    '',
    '| No. | Title | Narration | On screen | Notes |',
    '| --- | --- | --- | --- | --- |',
    ...rows,
    '',
  ].join('\n');
}

/** The outline as CSV (RFC 4180), with a heading row. */
export const outlineCsv = (steps: readonly StepWords[]): string =>
  Papa.unparse(
    {
      fields: ['Title', 'Narration', 'On screen', 'Notes'],
      data: steps.map((s) => [s.title, s.narration, s.action, s.notes]),
    },
    // A spreadsheet must not take a cell for a formula.
    { escapeFormulae: true, newline: '\r\n' },
  );
