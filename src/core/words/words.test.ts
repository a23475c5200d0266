import fc from 'fast-check';
import type { StepWords } from '../edit/outline';
import { countWords, readingSeconds } from './count';
import { outlineCsv, outlineMarkdown } from './export';
import { parseScript } from './parse';
import { spreadCells, stepsFromTable } from './table';

const words = (narration: string, more: Partial<StepWords> = {}): StepWords => ({
  title: '',
  narration,
  action: '',
  notes: '',
  ...more,
});

describe('counting', () => {
  test.each([
    ['Open the menu.', 3],
    ['Type 120 degrees, then press Enter!', 6],
    ['It’s cone six (1222 °C).', 5],
    ['افتح القائمة واختر', 3],
    ['', 0],
    ['— … !', 0],
  ])('%s', (text, count) => expect(countWords(text)).toBe(count));

  test('words without spaces between them are counted too', () =>
    expect(countWords('窯を予約します')).toBeGreaterThanOrEqual(3));

  test('reading time follows the speed', () =>
    expect(readingSeconds('one two three four', 120)).toBeCloseTo(2));
});

describe('plain text', () => {
  test('a blank line begins a step; first words tell what a line is', () => {
    const { kind, steps } = parseScript(
      'Hello.\r\n\r\n2. New firing\r\nOpen the menu.\r\nScreen: the menu\r\nNotes: slowly\r\n\r\n[Wait]\r\nDone.\r\n',
    );
    expect(kind).toBe('text');
    expect(steps).toEqual([
      words('Hello.'),
      words('Open the menu.', { title: 'New firing', action: 'the menu', notes: 'slowly' }),
      words('Done.', { action: 'Wait' }),
    ]);
  });

  test('prose with commas and numbers in it stays prose', () => {
    const { kind, steps } = parseScript(
      'First, open the menu, then, if you like, close it.\n\nIn 2019, nothing happened.',
    );
    expect(kind).toBe('text');
    expect(steps).toHaveLength(2);
  });

  test('nothing of a text is lost', () => {
    const paragraph = fc
      .array(fc.stringMatching(/^[a-z]{1,8}$/), { minLength: 1, maxLength: 12 })
      .map((w) => w.join(' '));
    fc.assert(
      fc.property(fc.array(paragraph, { minLength: 1, maxLength: 30 }), (paragraphs) => {
        const { steps } = parseScript(paragraphs.join('\n\n'));
        expect(
          steps
            .flatMap((s) => Object.values(s))
            .join(' ')
            .split(/\s+/)
            .filter(Boolean),
        ).toEqual(paragraphs.join(' ').split(' '));
      }),
    );
  });
});

describe('Markdown', () => {
  test('headings are titles; the one above all is the script’s own', () => {
    const { kind, steps } = parseScript(
      '# Glaze firing\n\n## 1. Hello\n\nI am *Ilse* & this is `Kilnbook`.\n\n> Presenter full\n\n## Book\n\n- Press Book.\n- Screen: the dialog\n\nNote: slowly\n',
    );
    expect(kind).toBe('markdown');
    expect(steps).toEqual([
      words('I am Ilse & this is Kilnbook.', { title: 'Hello', action: 'Presenter full' }),
      words('Press Book.', { title: 'Book', action: 'the dialog', notes: 'slowly' }),
    ]);
  });
});

describe('tables', () => {
  test('a heading row names the columns in any order; unknown ones are left out', () => {
    expect(
      stepsFromTable([
        ['Minutes', 'On screen', 'Narration'],
        ['0:10', 'menu', 'Open it.'],
      ]),
    ).toEqual([words('Open it.', { action: 'menu' })]);
  });

  test('two columns without a heading are narration and screen; a column of numbers is passed over', () => {
    expect(
      stepsFromTable([
        ['1', 'Open it.', 'menu'],
        ['2', 'Name it.', 'form'],
      ]),
    ).toEqual([words('Open it.', { action: 'menu' }), words('Name it.', { action: 'form' })]);
  });

  test('merged cells stand once, and rows without words belong to the step above', () => {
    const grid = spreadCells([
      [
        { text: 'Narration', rows: 1, columns: 1 },
        { text: 'Screen', rows: 1, columns: 1 },
      ],
      [
        { text: 'Say it.', rows: 3, columns: 1 },
        { text: 'a', rows: 1, columns: 1 },
      ],
      [{ text: 'b', rows: 1, columns: 1 }],
      [{ text: '', rows: 1, columns: 1 }],
      [{ text: 'Both.', rows: 1, columns: 2 }],
    ]);
    expect(grid[2]).toEqual(['', 'b']);
    expect(stepsFromTable(grid)).toEqual([words('Say it.', { action: 'a\nb' }), words('Both.')]);
  });

  test('empty rows and empty input give no steps', () => {
    expect(stepsFromTable([[' ', ''], ['']])).toEqual([]);
    expect(parseScript('').steps).toEqual([]);
    expect(parseScript(' \n\n \t \n').steps).toEqual([]);
  });
});

describe('what is saved is read again', () => {
  const text = fc
    .array(
      fc.constantFrom(
        'Open',
        'it',
        '"quoted"',
        'a|b',
        'c,d',
        'x;y',
        'über',
        'قائمة',
        '\\n',
        '100 %',
      ),
      { minLength: 1, maxLength: 6 },
    )
    .map((w) => w.join(' '));
  const step = fc.record({
    title: fc.oneof(fc.constant(''), text),
    narration: text,
    action: fc.oneof(fc.constant(''), text),
    notes: fc.oneof(fc.constant(''), text),
  });

  test('as CSV', () => {
    fc.assert(
      fc.property(fc.array(step, { minLength: 1, maxLength: 12 }), (steps) =>
        expect(parseScript(outlineCsv(steps)).steps).toEqual(steps),
      ),
    );
  });

  test('as Markdown', () => {
    const said = outlineMarkdown('Glaze firing', [
      words('Open it.\nNow.', { title: 'a|b', action: 'menu' }),
      words('Done.'),
    ]);
    expect(parseScript(said)).toEqual({
      kind: 'markdown',
      steps: [words('Open it.\nNow.', { title: 'a|b', action: 'menu' }), words('Done.')],
    });
  });

  test('a cell that looks like a formula is made harmless and read back', () => {
    const csv = outlineCsv([words('=1+1')]);
    expect(csv).toContain("'=1+1");
    expect(parseScript(csv).steps).toEqual([words('=1+1')]);
  });
});

test('200,000 words are read in one go', () => {
  const { steps } = parseScript('Open the menu and choose a firing now. '.repeat(25_000));
  expect(countWords(steps[0]!.narration)).toBe(200_000);
});
