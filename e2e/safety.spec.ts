import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
import { expect, test, type Page } from '@playwright/test';
import { clips, goTo, openDemo, projectLink } from './edit';
import { dataFolder, openDocument, saved } from './recording';

/** What the database answers behind the server's back: it can be looked into, or be damaged. */
function database(sql: string, ...values: string[]): unknown {
  const script = `const {Database}=require('sqlite3');const d=new Database(process.argv[1]);
    d.configure('busyTimeout',8000);d.all(process.argv[2],process.argv.slice(3),(e,rows)=>{
    if(e)throw e;console.log(JSON.stringify(rows));d.close()})`;
  const file = join(dataFolder(), 'vistum.sqlite');
  return JSON.parse(
    execFileSync(process.execPath, ['-e', script, file, sql, ...values], { encoding: 'utf8' }),
  );
}

/** Until the document is written whole, which would make damage to it good. */
const writtenWhole = (id: string) =>
  expect
    .poll(() => database('SELECT checkpoint = revision AS whole FROM projects WHERE id = ?', id))
    .toEqual([{ whole: 1 }]);

const timecode = (page: Page) => page.getByLabel('Timecode').inputValue();

test('what is typed right after a callout was made are its words, not commands', async ({
  page,
}) => {
  const id = await openDemo(page);
  const before = (await openDocument(page, id)).project;
  await goTo(page, '30');
  await page.keyboard.press('Escape');
  await page.keyboard.press('x');
  await page.keyboard.type('Bis zum Brennen bjmx', { delay: 5 });
  await page.getByRole('tab', { name: 'Steps' }).click();
  await saved(page);
  const { project } = await openDocument(page, id);
  expect(project.lanes).toEqual(before.lanes);
  expect(project.markers).toEqual(before.markers);
  const added = project.callouts.filter((c) => !before.callouts.some((b) => b.id === c.id));
  expect(added).toMatchObject([{ kind: 'text', text: 'Bis zum Brennen bjmx' }]);
});

test('a page brings its project along; a place that is gone back to has what was done since', async ({
  page,
}) => {
  const asked: string[] = [];
  page.on('request', (request) => {
    if (/\/api\/projects\/[^/]+$/.test(request.url()) && request.method() === 'GET')
      asked.push(request.url());
  });
  await openDemo(page);
  expect(asked).toEqual([]);
  const before = await clips(page, 'voice').count();
  await goTo(page, '5');
  await page.keyboard.press('Escape');
  await page.keyboard.press('b');
  await expect(clips(page, 'voice')).toHaveCount(before + 1);
  await page.getByRole('link', { name: 'Outline' }).click();
  await page.waitForURL(/outline$/);
  await expect(page.getByRole('button', { name: 'Paste a script' })).toBeVisible();
  await page.goBack();
  await expect(clips(page, 'voice')).toHaveCount(before + 1);
  await page.reload();
  await expect(clips(page, 'voice')).toHaveCount(before + 1);
});

test('Space plays after a button was pressed, and presses what was reached by keys', async ({
  page,
}) => {
  const id = await openDemo(page);
  const before = (await openDocument(page, id)).project.callouts.length;
  await goTo(page, '30');
  await page.getByRole('button', { name: 'Cover', exact: true }).click();
  const at = await timecode(page);
  await page.keyboard.press('Space');
  await expect.poll(() => timecode(page)).not.toBe(at);
  await page.keyboard.press('Space');
  await saved(page);
  expect((await openDocument(page, id)).project.callouts).toHaveLength(before + 1);
  const halo = page.getByRole('button', { name: 'Halo', exact: true });
  await page.getByRole('button', { name: 'Framing', exact: true }).focus();
  await page.keyboard.press('ArrowRight');
  await expect(halo).toBeFocused();
  const still = await timecode(page);
  await page.keyboard.press('Space');
  await expect(page.getByRole('tab', { name: 'Details' })).toHaveAttribute('data-state', 'active');
  expect(await timecode(page)).toBe(still);
});

test('an edit by key in the middle of a drag stays', async ({ page }) => {
  const id = await openDemo(page);
  const count = async () =>
    (await openDocument(page, id)).project.lanes.flatMap((l) => l.clips).length;
  const before = await count();
  await goTo(page, '40');
  const clip = clips(page, 'music').first();
  const box = (await clip.boundingBox())!;
  await page.mouse.move(box.x + 60, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + 80, box.y + box.height / 2, { steps: 4 });
  await page.keyboard.press('b');
  await page.mouse.move(box.x + 120, box.y + box.height / 2, { steps: 4 });
  await page.mouse.up();
  await saved(page);
  expect(await count()).toBeGreaterThan(before);
  const [first] = (await openDocument(page, id)).history.done.slice(-1);
  expect(first!.label).toMatch(/Split/);
});

test('the levels of two clips are undone one after the other', async ({ page }) => {
  const id = await openDemo(page);
  const gains = async () => {
    const { project } = await openDocument(page, id);
    return project.lanes.find((l) => l.kind === 'voice')!.clips.map((c) => c.gain);
  };
  for (const index of [0, 1]) {
    await clips(page, 'voice')
      .nth(index)
      .click({ position: { x: 50, y: 20 } });
    const level = page.getByRole('slider', { name: 'Level' });
    await level.focus();
    for (let i = 0; i < 4; i++) await level.press('ArrowRight');
  }
  await saved(page);
  const both = await gains();
  expect(both[0]).toBeGreaterThan(0);
  expect(both[1]).toBeGreaterThan(0);
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+z');
  await saved(page);
  expect((await gains()).slice(0, 2)).toEqual([both[0], 0]);
});

test('a save that is refused says why, and the work can be taken along', async ({ page }) => {
  await openDemo(page);
  let refusals = 0;
  await page.route('**/api/projects/**', (route) => {
    // What was changed is refused, and the whole then too.
    if (!['PUT', 'POST'].includes(route.request().method())) return route.continue();
    refusals++;
    return route.fulfill({
      status: 422,
      contentType: 'application/problem+json',
      body: JSON.stringify({ detail: 'The project was not saved: /lanes/0/name is too long.' }),
    });
  });
  await goTo(page, '10');
  await page.keyboard.press('m');
  const banner = page.getByRole('alert').filter({ hasText: '/lanes/0/name is too long' });
  await expect(banner).toBeVisible();
  const download = page.waitForEvent('download');
  await banner.getByRole('button', { name: 'Save a copy of this' }).click();
  expect((await download).suggestedFilename()).toMatch(/\.json$/);
  expect(refusals).toBe(2);
  await page.unroute('**/api/projects/**');
  await banner.getByRole('button', { name: 'Undo the last edit' }).click();
  await expect(banner).toHaveCount(0);
  await saved(page);
});

test('a damaged project says so and opens at its last good revision; others stand beside it', async ({
  page,
}) => {
  const id = await openDemo(page);
  await goTo(page, '10');
  await page.keyboard.press('m');
  await saved(page);
  const before = (await openDocument(page, id)).project;
  await writtenWhole(id);
  database('UPDATE projects SET document = substr(document, 1, 3000) WHERE id = ?', id);
  await page.goto('/');
  await expect(projectLink(page, 'Glaze firing')).toBeVisible();
  await page.goto(`/projects/${id}/edit`);
  await expect(page.getByText(/This project is damaged: its document is cut off/)).toBeVisible();
  await page.getByRole('button', { name: 'Open the last good revision' }).click();
  await expect(clips(page, 'screen')).toHaveCount(1);
  expect((await openDocument(page, id)).project).toEqual(before);
});

test('what was deleted is listed, and brought back from there', async ({ page }) => {
  const { id } = (await (
    await page.request.post('/api/projects/demo-glaze-firing/duplicate')
  ).json()) as { id: string };
  await page.request.patch(`/api/projects/${id}`, { data: { name: 'Short-lived' } });
  const thumbs = await poster(page, id);
  await page.goto('/');
  await page.getByRole('button', { name: 'Delete Short-lived' }).click();
  await expect(projectLink(page, 'Short-lived')).toHaveCount(0);
  expect((await page.request.get(thumbs)).status()).toBe(404);
  await page.getByRole('button', { name: 'Deleted things' }).click();
  const list = page.getByRole('dialog', { name: 'Deleted things' });
  await expect(list.getByText('gone for good in 7 days').first()).toBeVisible();
  await list.getByRole('button', { name: 'Bring Short-lived back' }).click();
  await expect(list.getByRole('button', { name: 'Bring Short-lived back' })).toHaveCount(0);
  await page.keyboard.press('Escape');
  await expect(projectLink(page, 'Short-lived')).toBeVisible();
  expect((await page.request.get(thumbs)).status()).toBe(200);
});

async function poster(page: Page, id: string): Promise<string> {
  const list = (await (await page.request.get('/api/projects')).json()) as {
    id: string;
    poster: string;
  }[];
  return `/api/footage/${list.find((p) => p.id === id)!.poster}/thumbs`;
}

test('no other site shows, reads or changes anything, and no page breaks its own policy', async ({
  page,
  baseURL,
}) => {
  const broken: string[] = [];
  page.on('console', (message) => {
    if (/Content Security Policy/i.test(message.text())) broken.push(message.text());
  });
  for (const place of ['edit', 'outline', 'record', 'publish', 'outline/print']) {
    await page.goto(`/projects/demo-glaze-firing/${place}`);
    await expect(page.getByText('Glaze firing').first()).toBeVisible();
  }
  expect(broken).toEqual([]);

  await page.route('http://elsewhere.example/**', (route) =>
    route.fulfill({
      contentType: 'text/html',
      body: `<iframe src="${baseURL}/"></iframe><p>Elsewhere</p>`,
    }),
  );
  await page.goto('http://elsewhere.example/');
  await expect(page.getByText('Elsewhere')).toBeVisible();
  await expect(page.frameLocator('iframe').getByText('Projects')).toHaveCount(0);
  const reached = await page.evaluate(async (base) => {
    const ask = (path: string, options: RequestInit) =>
      fetch(`${base}${path}`, options).then(
        (r) => `${r.type} ${r.status}`,
        () => 'refused',
      );
    return [
      await ask('/api/projects', {}),
      await ask('/api/projects', { method: 'POST', body: '{}' }),
      await ask('/api/uploads', { method: 'OPTIONS' }),
    ];
  }, baseURL!);
  expect(reached).toEqual(['refused', 'refused', 'refused']);

  const port = new URL(baseURL!).port;
  for (const [headers, status] of [
    [{ host: `evil.example:${port}` }, 421],
    [{ 'x-forwarded-host': 'evil.example', origin: 'http://evil.example' }, 403],
    [{ origin: 'null' }, 403],
  ] as const) {
    const answer = await page.request.post('/api/projects', {
      headers,
      data: { name: 'Theirs', width: 640, height: 360, frameRate: { num: 30, den: 1 } },
    });
    expect(answer.status()).toBe(status);
    expect(answer.headers()['x-frame-options']).toBe('DENY');
  }
  for (const path of ['/api/projects/%00', '/api/projects/%zz', '/api/footage/a%0d%0ab/thumbs'])
    expect((await page.request.get(path)).status()).toBe(400);
  for (const id of ['constructor', '__proto__', 'toString'])
    expect((await page.request.get(`/api/projects/${id}`)).status()).toBe(404);
});
