import { lexer, type Token, type Tokens } from 'marked';
import Papa from 'papaparse';
import type { StepWords } from '../edit/outline';
import { stepsFromTable } from './table';

export type ScriptKind = 'table' | 'markdown' | 'text';

export interface ParsedScript {
  readonly kind: ScriptKind;
  readonly steps: StepWords[];
}

const SCREEN = /^(?:on screen|screen|action|visual|shot|video)\s*:\s*/i;
const NOTES = /^(?:notes?|remarks?)\s*:\s*/i;
const NARRATION = /^(?:narration|voice|says?|audio)\s*:\s*/i;
const NUMBERED = /^(?:step\s+)?(\d{1,4})\s*[.):]\s*/i;
const BRACKETED = /^[[(](.+)[\])]$/s;
const MOST_COLUMNS = 12;

const emptyWords = (): StepWords => ({ title: '', narration: '', action: '', notes: '' });
const add = (words: StepWords, column: keyof StepWords, text: string) => {
  if (text)
    words[column] = words[column]
      ? `${words[column]}${column === 'narration' ? '\n\n' : '\n'}${text}`
      : text;
};

/**
 * Makes steps of a script as people paste it: a table (cells between tabs, or CSV), Markdown
 * with headings or tables, or plain text with a blank line between steps. Nothing is thrown
 * away: what has no place of its own is narration.
 */
export function parseScript(source: string): ParsedScript {
  const text = source.replace(/^\uFEFF/, '').replace(/\r\n?/g, '\n');
  const grid = gridOf(text);
  if (grid) return { kind: 'table', steps: stepsFromTable(grid) };
  if (/^#{1,6} \S/m.test(text) || /^\|.+\|\s*\n\|[\s:|-]+\|/m.test(text))
    return { kind: 'markdown', steps: fromMarkdown(text) };
  return { kind: 'text', steps: fromText(text) };
}

/**
 * Rows of cells when a text is a table: tabs in every line, or CSV with the same number of cells
 * throughout.
 */
function gridOf(text: string): string[][] | null {
  const trimmed = text.replace(/^\n+|\n+$/g, '');
  if (!trimmed) return null;
  if (trimmed.includes('\t')) {
    const { data } = Papa.parse<string[]>(trimmed, { delimiter: '\t', skipEmptyLines: 'greedy' });
    const even = data.filter((row) => row.length > 1).length;
    return even >= data.length * 0.8 ? data : null;
  }
  const first = trimmed.slice(
    0,
    trimmed.indexOf('\n') < 0 ? trimmed.length : trimmed.indexOf('\n'),
  );
  for (const delimiter of [',', ';']) {
    // Prose has commas too: a table without quotes is taken for one only when it has a heading row
    // that is known.
    if (!first.includes(delimiter)) continue;
    const { data, errors } = Papa.parse<string[]>(trimmed, { delimiter, skipEmptyLines: 'greedy' });
    const width = data[0]?.length ?? 0;
    const named = (data[0] ?? []).filter((cell) =>
      /^(title|step|narration|voice|script|on screen|screen|action|visual|notes?)$/i.test(
        cell.trim(),
      ),
    ).length;
    if (
      width >= 2 &&
      width <= MOST_COLUMNS &&
      named >= 2 &&
      !errors.some((e) => e.type === 'Quotes') &&
      data.length > 1
    )
      return data;
  }
  return null;
}

/** Plain words of a Markdown token, without its marks. */
function plain(token: Token): string {
  if ('tokens' in token && token.tokens?.length) return token.tokens.map(plain).join('');
  if (token.type === 'br') return '\n';
  return 'text' in token
    ? String(token.text).replace(
        /&(amp|lt|gt|quot|#39);/g,
        (_, e: string) => ({ amp: '&', lt: '<', gt: '>', quot: '"', '#39': "'" })[e]!,
      )
    : token.raw;
}

function fromMarkdown(text: string): StepWords[] {
  const steps: StepWords[] = [];
  let now: StepWords | null = null;
  const current = () => {
    if (!now) steps.push((now = emptyWords()));
    return now;
  };
  const tokens = lexer(text);
  const headings = tokens.filter((t): t is Tokens.Heading => t.type === 'heading');
  // One heading above all others, or over a table, is the script's own title, not a step's.
  const top = Math.min(...headings.map((h) => h.depth));
  const ownTitle =
    headings.filter((h) => h.depth === top).length === 1 &&
    headings[0]!.depth === top &&
    (headings.length > 1 || tokens.some((t) => t.type === 'table'));
  let passedTitle = false;
  for (const token of tokens) {
    switch (token.type) {
      case 'space':
      case 'hr':
        break;
      case 'heading':
        if (ownTitle && !passedTitle) {
          passedTitle = true;
          break;
        }
        now = emptyWords();
        now.title = plain(token).replace(NUMBERED, '').trim();
        steps.push(now);
        break;
      case 'table': {
        const table = token as Tokens.Table;
        const cells = (row: readonly Tokens.TableCell[]) =>
          row.map((cell) =>
            cell.tokens
              .map(plain)
              .join('')
              .replace(/<br\s*\/?>/g, '\n'),
          );
        steps.push(...stepsFromTable([cells(table.header), ...table.rows.map(cells)]));
        now = null;
        break;
      }
      case 'blockquote':
        add(current(), 'action', (token as Tokens.Blockquote).tokens.map(plain).join('\n').trim());
        break;
      case 'list':
        for (const item of (token as Tokens.List).items)
          sort(current(), item.tokens.map(plain).join('\n').trim());
        break;
      default:
        sort(current(), plain(token).trim());
    }
  }
  return steps.filter((s) => Object.values(s).some(Boolean));
}

/** Puts a paragraph where its first word says; without one it is narration. */
function sort(words: StepWords, paragraph: string): void {
  const bracket = BRACKETED.exec(paragraph)?.[1];
  if (bracket) return add(words, 'action', bracket.trim());
  if (SCREEN.test(paragraph)) return add(words, 'action', paragraph.replace(SCREEN, ''));
  if (NOTES.test(paragraph)) return add(words, 'notes', paragraph.replace(NOTES, ''));
  add(words, 'narration', paragraph.replace(NARRATION, ''));
}

function fromText(text: string): StepWords[] {
  return text
    .split(/\n[ \t]*(?:\n[ \t]*)+/)
    .map((block) => block.trim())
    .filter(Boolean)
    .map((block) => {
      const words = emptyWords();
      const lines = block.split('\n').map((line) => line.trim());
      const number = NUMBERED.exec(lines[0]!);
      if (number) {
        lines[0] = lines[0]!.slice(number[0].length);
        // A numbered first line with more below it is the title.
        if (lines.length > 1) words.title = lines.shift()!;
      }
      let said: string[] = [];
      const flush = () => {
        add(words, 'narration', said.join('\n'));
        said = [];
      };
      for (const line of lines) {
        if (SCREEN.test(line) || NOTES.test(line) || BRACKETED.test(line)) {
          flush();
          sort(words, line);
        } else said.push(line.replace(NARRATION, ''));
      }
      flush();
      return words;
    });
}
