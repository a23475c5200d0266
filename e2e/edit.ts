import { expect, type Locator, type Page } from '@playwright/test';

export const clips = (page: Page, kind: string) =>
  page.locator(`[data-clip][data-lane-kind=${kind}]`);

/** Opens a copy of the demo in Edit, so that no test meets what another left. Answers its id. */
export async function openDemo(page: Page): Promise<string> {
  const { id } = (await (
    await page.request.post('/api/projects/demo-glaze-firing/duplicate')
  ).json()) as { id: string };
  await page.goto(`/projects/${id}/edit`);
  await expect(clips(page, 'screen')).toHaveCount(1);
  // Until it is known what the footage is, nothing can be put on it.
  await expect(clips(page, 'screen')).toContainText('kilnbook-screen');
  await settled(page);
  return id;
}

/** Waits until the Picture has the size that it keeps: what is pressed there is told by that. */
async function settled(page: Page): Promise<void> {
  const picture = page.getByTestId('picture');
  const place = async () => JSON.stringify(await picture.boundingBox());
  await expect
    .poll(async () => {
      const before = await place();
      await page.evaluate(
        () => new Promise((after) => requestAnimationFrame(() => requestAnimationFrame(after))),
      );
      return (await place()) === before;
    })
    .toBe(true);
}

export async function goTo(page: Page, time: string): Promise<void> {
  await page.getByLabel('Timecode').fill(time);
  await page.getByLabel('Timecode').press('Enter');
}

/** Does what the list of commands has by a name. */
export async function command(page: Page, name: string): Promise<void> {
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Command' }).fill(name);
  await page.getByRole('combobox', { name: 'Command' }).press('Enter');
  await expect(page.getByRole('dialog', { name: 'Commands' })).toHaveCount(0);
}

/** Presses, moves and lets go, with a key held if one is named. */
export async function drag(
  page: Page,
  from: { x: number; y: number },
  dx: number,
  dy: number,
  key?: 'Shift' | 'Control' | 'Alt',
): Promise<void> {
  if (key) await page.keyboard.down(key);
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(from.x + dx, from.y + dy, { steps: 6 });
  await page.mouse.up();
  if (key) await page.keyboard.up(key);
}

/** The middle of what is seen of something, in pixels of the page. */
export const middle = async (of: Locator) => {
  const { x, y, width, height } = (await of.boundingBox())!;
  return { x: x + width / 2, y: y + height / 2 };
};

/** A message at the foot of the page. */
export const message = (page: Page, text: string | RegExp) =>
  page.locator('[data-messages]').getByText(text);

/** What opens a project in the list of all. */
export const projectLink = (page: Page, name: string) =>
  page
    .getByRole('list', { name: 'Projects' })
    .getByRole('link')
    .filter({ has: page.getByText(name, { exact: true }) });

/** Starts the export that the open dialog describes, and goes where it is seen. */
export async function startExport(page: Page): Promise<void> {
  await page.getByRole('dialog').getByRole('button', { name: 'Start export' }).click();
  await page.getByRole('button', { name: 'Show in Publish' }).click();
  await page.waitForURL(/\/publish$/);
}
