import { expect, test, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';

const saved = (page: Page) =>
  expect(page.getByRole('status').filter({ hasText: /^saved$/ })).toBeVisible();

async function newOutline(page: Page, name: string): Promise<string> {
  const { id } = (await (
    await page.request.post('/api/projects', {
      data: { name, width: 1920, height: 1080, frameRate: { num: 30, den: 1 } },
    })
  ).json()) as { id: string };
  await page.goto(`/projects/${id}/outline`);
  await expect(page.getByRole('button', { name: 'Paste a script' }).first()).toBeVisible();
  return id;
}

async function paste(page: Page, text: string, html?: string): Promise<void> {
  await page.evaluate(
    ([plain, rich]) => {
      const data = new DataTransfer();
      data.setData('text/plain', plain!);
      if (rich) data.setData('text/html', rich);
      document.body.dispatchEvent(
        new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
      );
    },
    [text, html ?? ''],
  );
}

test('a table with merged cells is pasted; steps are split, joined, moved and undone; the script is saved', async ({
  page,
}) => {
  await newOutline(page, 'Table');
  await paste(
    page,
    'ignored',
    `<table><tr><th>Narration</th><th>On screen</th></tr>
     <tr><td rowspan="2">Open the menu.<br>Choose New firing.</td><td>The menu</td></tr>
     <tr><td>New firing</td></tr>
     <tr><td>Give it a name. Then pick a kiln.</td><td>The form</td></tr></table>`,
  );
  await page.getByRole('button', { name: 'Make 2 steps' }).click();
  await expect(page.getByLabel('Narration of step 1')).toHaveValue(
    'Open the menu.\nChoose New firing.',
  );
  await expect(page.getByLabel('On screen in step 1')).toHaveValue('The menu\nNew firing');

  // Split at the caret, by key.
  const second = page.getByLabel('Narration of step 2');
  await second.focus();
  await second.evaluate((area: HTMLTextAreaElement) => area.setSelectionRange(15, 15));
  await page.keyboard.press('Control+Enter');
  await expect(page.getByLabel('Narration of step 2')).toHaveValue('Give it a name.');
  await expect(page.getByLabel('Narration of step 3')).toHaveValue('Then pick a kiln.');
  // Moved up by key, down by the pointer.
  await page.getByLabel('Narration of step 3').focus();
  await page.keyboard.press('Alt+ArrowUp');
  await expect(page.getByLabel('Narration of step 2')).toHaveValue('Then pick a kiln.');
  const handle = (await page.getByRole('button', { name: 'Move step 1' }).first().boundingBox())!;
  const below = (await page.getByRole('button', { name: 'Move step 3' }).first().boundingBox())!;
  await page.mouse.move(handle.x + 8, handle.y + 8);
  await page.mouse.down();
  await page.mouse.move(handle.x + 8, below.y + 20, { steps: 12 });
  await page.mouse.up();
  await expect(page.getByLabel('Narration of step 3')).toHaveValue(
    'Open the menu.\nChoose New firing.',
  );
  // Joined by Backspace at its start.
  const joined = page.getByLabel('Narration of step 2');
  await joined.focus();
  await joined.evaluate((area: HTMLTextAreaElement) => area.setSelectionRange(0, 0));
  await page.keyboard.press('Backspace');
  await expect(page.getByLabel('Narration of step 1')).toHaveValue(
    'Then pick a kiln.\n\nGive it a name.',
  );
  await page.getByRole('button', { name: /^Undo: Join/ }).click();
  await expect(page.getByLabel('Narration of step 2')).toHaveValue('Give it a name.');
  await saved(page);

  await page.getByRole('button', { name: 'Save script' }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('menuitem', { name: 'Markdown' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('Table.md');
  expect(readFileSync(await download.path(), 'utf8')).toContain(
    '| 3 |  | Open the menu.<br>Choose New firing. | The menu<br>New firing |',
  );
});

test('a script of 200,000 words and one from right to left are taken, and stay quick', async ({
  page,
}) => {
  await newOutline(page, 'Long');
  const paragraph = `${'Open the menu and choose a firing for the kiln. '.repeat(5).trim()}\n\n`;
  await paste(page, paragraph.repeat(4000) + 'افتح القائمة واختر حرقًا جديدًا.');
  await page.getByRole('button', { name: 'Make 4001 steps' }).click({ timeout: 30_000 });
  await expect(page.getByTestId('outline-totals')).toContainText('4001 steps · 200005 words', {
    timeout: 30_000,
  });
  await expect(page.getByLabel('Narration of step 1', { exact: true })).toBeVisible();
  // Only rows in sight are drawn.
  expect(await page.locator('[data-narration]').count()).toBeLessThan(60);
  await page
    .getByRole('region', { name: 'Script' })
    .evaluate((element) => element.scrollTo(0, element.scrollHeight));
  await expect(page.getByLabel('Narration of step 4001')).toHaveValue(/افتح/);
  expect(
    await page.getByLabel('Narration of step 4001').evaluate((e) => getComputedStyle(e).direction),
  ).toBe('rtl');
  await saved(page);
});

test('the target sets size and captions, and the advice follows', async ({ page }) => {
  const id = await newOutline(page, 'Target');
  await page.getByLabel('Shown on').selectOption('phone');
  await expect(page.getByLabel('Height (px)')).toHaveValue('1920');
  await expect(page.getByLabel('Captions')).toHaveValue('needed');
  await page.getByLabel('Shown on').selectOption('deck');
  await page.getByRole('slider', { name: 'Closest view' }).fill('2');
  await expect(page.getByTestId('capture-size')).toHaveText('2560×1440 px');
  await expect(page.getByText('Fit: bars of 160 px at each side')).toBeVisible();
  await saved(page);
  const { project } = (await (await page.request.get(`/api/projects/${id}`)).json()) as {
    project: { canvas: { width: number }; target: { id: string } };
  };
  expect([project.canvas.width, project.target.id]).toEqual([1280, 'deck']);
  // The prompter rolls.
  await paste(page, `${'Say this slowly and clearly. '.repeat(60)}`);
  await page.getByRole('button', { name: 'Make 1 step' }).click();
  await page.getByRole('button', { name: 'Prompter' }).click();
  await page.keyboard.press('Space');
  await expect
    .poll(() => page.getByTestId('prompter-text').evaluate((e) => e.scrollTop))
    .toBeGreaterThan(20);
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog', { name: 'Prompter' })).toHaveCount(0);
});
