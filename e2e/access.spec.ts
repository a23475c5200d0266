import { expect, test, type Page } from '@playwright/test';
import axe from 'axe-core';
import { command, goTo, openDemo } from './edit';

/** What the web content accessibility guidelines ask for at levels A and AA. */
const TAGS = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];

/** What lies on the timeline is as large as its time and its row make it. */
const AS_LONG_AS_THEIR_TIME = /data-(span|clip|step)=/;

/** Faults of the page as it is, a line for each thing that has one. */
async function faults(page: Page): Promise<string[]> {
  await page.evaluate(axe.source);
  const found = await page.evaluate(async (tags) => {
    const { axe: inPage } = window as unknown as { axe: typeof axe };
    const { violations } = await inPage.run(document, { runOnly: tags });
    return violations.map(({ id, help, nodes }) => ({
      ...{ id, help },
      nodes: nodes.map(({ html, target }) => ({ html, at: target.join(' ') })),
    }));
  }, TAGS);
  return found.flatMap(({ id, help, nodes }) =>
    nodes
      .filter(({ html }) => id !== 'target-size' || !AS_LONG_AS_THEIR_TIME.test(html))
      .map(({ at, html }) => `${id} (${help}): ${at} ${html.slice(0, 160)}`),
  );
}

test('the checker finds what is wrong', async ({ page }) => {
  await page.setContent('<html lang="en"><title>x</title><button></button><img src="x"></html>');
  expect((await faults(page)).map((fault) => fault.split(' ')[0]!).sort()).toEqual([
    'button-name',
    'image-alt',
  ]);
});

test('projects, outline, record and publish are free of faults, with their dialogs', async ({
  page,
}) => {
  await page.goto('/');
  await expect(page.getByText('Glaze firing').first()).toBeVisible();
  expect.soft(await faults(page)).toEqual([]);
  for (const name of ['New project', 'Deleted things']) {
    await page.getByRole('button', { name }).click();
    await expect(page.getByRole('dialog')).toBeVisible();
    expect.soft(await faults(page)).toEqual([]);
    await page.keyboard.press('Escape');
  }
  const home = '/projects/demo-glaze-firing';
  await page.goto(`${home}/outline`);
  await expect(page.getByRole('button', { name: 'Prompter' })).toBeVisible();
  expect.soft(await faults(page)).toEqual([]);
  await page.getByRole('button', { name: 'Prompter' }).click();
  await expect(page.getByRole('dialog', { name: 'Prompter' })).toBeVisible();
  expect.soft(await faults(page)).toEqual([]);
  await page.goto(`${home}/record`);
  await page.getByRole('button', { name: 'Try it with practice devices' }).click();
  await expect(page.getByRole('radiogroup', { name: 'What is recorded' })).toBeVisible();
  expect.soft(await faults(page)).toEqual([]);
  await page.goto(`${home}/publish`);
  await expect(page.getByRole('heading', { name: 'Exports' })).toBeVisible();
  expect.soft(await faults(page)).toEqual([]);
  // The dark look, which is kept from place to place.
  await page.getByRole('button', { name: 'Lamp off (dark look)' }).click();
  const places = [
    ['/', page.getByText('Glaze firing').first()],
    [`${home}/outline`, page.getByRole('button', { name: 'Prompter' })],
    [`${home}/record`, page.getByRole('radiogroup', { name: 'What is recorded' })],
    [`${home}/publish`, page.getByRole('heading', { name: 'Exports' })],
  ] as const;
  for (const [place, there] of places) {
    await page.goto(place);
    await expect(there).toBeVisible();
    await expect(page.getByRole('button', { name: 'Lamp on (light look)' })).toBeVisible();
    expect.soft(await faults(page)).toEqual([]);
  }
});

test('edit is free of faults: its panels, what is selected, commands and keys', async ({
  page,
}) => {
  await openDemo(page);
  expect.soft(await faults(page)).toEqual([]);
  const panels = await page.getByRole('tab').all();
  expect(panels.length).toBeGreaterThan(1);
  for (const panel of panels) {
    await panel.click();
    expect.soft(await faults(page)).toEqual([]);
  }
  const things = page.locator('[data-clip], [data-callout], [data-framing]');
  for (const kind of ['screen', 'presenter', 'voice']) {
    await page.locator(`[data-clip][data-lane-kind=${kind}]`).first().click();
    expect.soft(await faults(page)).toEqual([]);
  }
  expect(await things.count()).toBeGreaterThan(3);
  await page.getByRole('button', { name: 'Plan framings', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Plan framings' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Plan again' })).toBeEnabled();
  expect.soft(await faults(page)).toEqual([]);
  await page.locator('[data-span=framings]').first().click();
  await expect(page.getByRole('region', { name: 'Why' })).toBeVisible();
  expect.soft(await faults(page)).toEqual([]);
  await page
    .locator('[data-span=pointer]')
    .first()
    .click({ position: { x: 60, y: 8 } });
  await page.getByRole('checkbox', { name: 'Lens', exact: true }).check();
  expect.soft(await faults(page)).toEqual([]);
  // Menus of the toolbar and of a clip, the presenter's handles, a level point.
  await page.getByRole('button', { name: 'Layout', exact: true }).click();
  await expect(page.getByRole('menuitem', { name: 'Presenter settings' })).toBeVisible();
  expect.soft(await faults(page)).toEqual([]);
  await page.getByRole('menuitem', { name: 'Presenter settings' }).click();
  await goTo(page, '20');
  await expect(page.getByTestId('presenter-box')).toBeVisible();
  expect.soft(await faults(page)).toEqual([]);
  const voice = page.locator('[data-clip][data-lane-kind=voice]').nth(1);
  await voice.click({ button: 'right' });
  await expect(page.getByRole('menuitem', { name: /^Ripple delete/ })).toBeVisible();
  expect.soft(await faults(page)).toEqual([]);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Level point at the playhead' }).click();
  await expect(page.getByRole('slider', { name: /^Level point/ })).toHaveCount(1);
  expect.soft(await faults(page)).toEqual([]);
  await page.getByRole('tab', { name: 'Footage' }).click();
  await page
    .getByRole('button', { name: /^kilnbook-screen/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'Mend the pointer’s path' }).click();
  await expect(page.getByRole('heading', { name: 'Pointer’s path' })).toBeVisible();
  expect.soft(await faults(page)).toEqual([]);
  await page.keyboard.press('Escape');
  await command(page, 'Split');
  await page.keyboard.press('Control+k');
  await expect(page.getByRole('dialog', { name: 'Commands' })).toBeVisible();
  expect.soft(await faults(page)).toEqual([]);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Export', exact: true }).click();
  await expect(page.getByRole('dialog', { name: 'Export' })).toBeVisible();
  expect.soft(await faults(page)).toEqual([]);
  await page.keyboard.press('Escape');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toBeVisible();
  expect.soft(await faults(page)).toEqual([]);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Lamp off (dark look)' }).click();
  for (const panel of panels) {
    await panel.click();
    expect.soft(await faults(page)).toEqual([]);
  }
});
