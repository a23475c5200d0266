import { createCanvas, loadImage } from '@napi-rs/canvas';
import { expect, test } from '@playwright/test';
import { appendFileSync, copyFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { goTo, message, openDemo, projectLink } from './edit';
import { ffmpeg, folder } from './media';
import { dataFolder, newProject, openDocument, saved } from './recording';

test('a new project takes uploads, refuses what it can’t read, and gets a pointer track', async ({
  page,
}) => {
  const screen = join(folder, 'my screen recording.mp4');
  ffmpeg(
    '-f',
    'lavfi',
    '-i',
    'testsrc2=s=1600x900:r=25:d=5',
    '-f',
    'lavfi',
    '-i',
    'sine=300:d=5',
    '-c:v',
    'libx264',
    '-preset',
    'ultrafast',
    '-pix_fmt',
    'yuv420p',
    '-c:a',
    'aac',
    screen,
  );
  const broken = join(folder, 'broken.mp4');
  writeFileSync(broken, 'not a recording\n'.repeat(40));
  const track = join(folder, 'track.csv');
  writeFileSync(
    track,
    'ms,x,y,event\n0,100,100\n1000,400,300,down\n1080,400,300,up\n900,9999,300\n4000,500,300\n',
  );

  await page.goto('/');
  await page.getByRole('button', { name: 'New project' }).first().click();
  await page.getByRole('button', { name: 'Make project' }).click();
  await expect(page.getByRole('dialog').getByRole('alert')).toContainText(
    'Give the project a name',
  );
  await page.getByRole('textbox', { name: 'Name' }).fill('Uploads');
  await page.getByLabel('Target').selectOption('deck');
  await page.getByRole('button', { name: 'Make project' }).click();
  await page.getByRole('link', { name: 'Edit', exact: true }).click();
  await expect(page.getByText('Nothing on the timeline yet')).toBeVisible();

  await page.getByRole('tab', { name: 'Footage' }).click();
  await page.getByLabel('Recordings to add').setInputFiles([screen, broken]);
  await expect(page.getByText('not a video, sound or picture file').first()).toBeVisible({
    timeout: 60_000,
  });
  await expect(page.getByText('1600×900 px · 25 fps')).toBeVisible({ timeout: 60_000 });
  await page.getByRole('button', { name: 'my screen recording.mp4', exact: true }).click();
  await expect(page.getByLabel('Role of my screen recording.mp4')).toHaveValue('screen');

  await page.getByLabel('Pointer track of my screen recording.mp4').setInputFiles(track);
  for (const note of ['5 positions', 'ran backwards', 'outside the picture'])
    await expect(page.getByText(new RegExp(`Pointer track: .*${note}`))).toBeVisible();
  // On an empty timeline what was brought stands already: picture and sound.
  await expect(page.locator('[data-clip]')).toHaveCount(2);
  await page
    .getByRole('button', { name: 'Place my screen recording.mp4 at the end of its lane' })
    .click();
  await expect(page.locator('[data-clip]')).toHaveCount(4);
  await page.getByRole('button', { name: 'Halo', exact: true }).click();
  await expect(page.locator('[data-span=pointer]')).toHaveCount(1);
  await page.keyboard.press('Escape');
  await page.getByRole('tab', { name: 'Details' }).click();
  await page.getByRole('button', { name: 'Use 1600×900 px' }).click();
  await expect(page.getByRole('combobox', { name: 'Picture' })).toHaveValue('1600x900');

  // Back among the projects: renamed, duplicated, deleted, and the deletion undone.
  await expect(page.getByText('saved', { exact: true })).toBeVisible();
  await page.goto('/');
  await page.getByRole('button', { name: 'Rename Uploads' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill('Uploads of today');
  await page.getByRole('button', { name: 'Rename', exact: true }).click();
  await page.getByRole('button', { name: 'Duplicate Uploads of today' }).click();
  await expect(projectLink(page, 'Uploads of today (copy)')).toBeVisible();
  await page.getByRole('button', { name: 'Delete Uploads of today (copy)' }).click();
  await expect(projectLink(page, 'Uploads of today (copy)')).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(projectLink(page, 'Uploads of today (copy)')).toBeVisible();
});

test('footage is found, tried, placed in part, told what does not match, deleted with warning and relinked', async ({
  page,
}) => {
  const wide = join(folder, 'old slides.mp4');
  const voice = join(folder, 'narration.wav');
  const drawing = join(folder, 'kiln plan.svg');
  ffmpeg(
    '-f',
    'lavfi',
    '-i',
    'testsrc2=s=800x600:r=25:d=6',
    '-c:v',
    'libx264',
    '-preset',
    'ultrafast',
    '-pix_fmt',
    'yuv420p',
    wide,
  );
  ffmpeg('-f', 'lavfi', '-i', 'sine=220:d=4', voice);
  writeFileSync(
    drawing,
    '<svg xmlns="http://www.w3.org/2000/svg" width="320" height="180"><rect width="320" height="180" fill="#a0573a"/><circle cx="160" cy="90" r="60" fill="#f6f3ec"/></svg>',
  );
  const id = await newProject(page, 'Found footage');
  await page.goto(`/projects/${id}/edit`);
  await page.getByRole('tab', { name: 'Footage' }).click();
  await page.getByLabel('Recordings to add').setInputFiles([wide, voice, drawing]);
  const rows = page.getByRole('list', { name: 'Footage' }).getByRole('listitem');
  // They were placed on the empty timeline; that is one step, which is taken back.
  await expect(message(page, '3 recordings placed')).toBeVisible();
  await page.locator('[data-messages]').getByRole('button', { name: 'Undo' }).click();
  await expect(page.locator('[data-clip]')).toHaveCount(0);
  await expect(page.getByText('3840×2160 px')).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText('800×600 px · 25 fps')).toBeVisible({ timeout: 60_000 });

  // What does not match is told at once, with remedies; nothing was changed by itself.
  const slides = rows.filter({ hasText: 'old slides.mp4' });
  await slides.getByText('25 fps in a project of 30 fps').click();
  await expect(slides.getByText('It has 25 fps, the project 30 fps.')).toBeVisible();
  await slides.getByText('4:3 in a picture of 16:9').click();
  await expect(slides.getByText(/It is 4:3, the picture 16:9/)).toBeVisible();
  await slides.getByRole('button', { name: 'Fit, blurred bars' }).click();
  await saved(page);
  expect((await openDocument(page, id)).project.looks).toMatchObject([
    { fit: 'fit', bars: 'blur' },
  ]);
  expect((await openDocument(page, id)).project.canvas.frameRate).toEqual({ num: 30, den: 1 });

  // Tags and search, kinds and order.
  await rows
    .filter({ hasText: 'narration.wav' })
    .getByRole('button', { name: 'narration.wav', exact: true })
    .click();
  await page.getByRole('textbox', { name: 'Tags' }).fill('take two, keep');
  await page.getByRole('textbox', { name: 'Tags' }).press('Enter');
  await page.getByLabel('Search footage').fill('take two');
  await expect(rows).toHaveCount(1);
  await page.getByLabel('Search footage').fill('nothing like this');
  await expect(page.getByText('Nothing in Footage is like that')).toBeVisible();
  await page.getByLabel('Search footage').fill('');
  await page.getByLabel('Show footage').selectOption('image');
  await expect(rows).toHaveCount(1);
  await page.getByLabel('Show footage').selectOption('');
  await page.getByLabel('Sort footage').selectOption('name');
  await expect(rows.first()).toContainText('kiln plan.svg');

  // Tried before it is placed: the keys set the part.
  await page.getByRole('button', { name: 'Look at old slides.mp4' }).click();
  await page.getByRole('slider', { name: 'Position' }).fill('1');
  await page.getByRole('dialog').getByText('I and O set').click();
  await page.keyboard.press('i');
  await page.getByRole('slider', { name: 'Position' }).fill('3');
  await page.getByRole('button', { name: 'Out point (O)' }).click();
  await expect(page.getByText('1.00 s to 3.00 s, 2.00 s are placed')).toBeVisible();
  await page.getByRole('button', { name: 'Place at the end' }).click();
  await expect(
    page.locator('[data-clip][aria-label="old slides.mp4, Screen, 2.0 s"]'),
  ).toBeVisible();

  // Several at once, in the order they were chosen; and by dragging one to its lane.
  await page.getByLabel('Choose kiln plan.svg').check();
  await page.getByLabel('Choose old slides.mp4').check();
  await page
    .getByRole('group', { name: 'Chosen footage' })
    .getByRole('button', { name: 'Place at the end' })
    .click();
  const labels = () =>
    page
      .locator('[data-clip][data-lane-kind=screen]')
      .evaluateAll((clips) => clips.map((c) => c.getAttribute('aria-label')));
  await expect
    .poll(labels)
    .toEqual([
      'old slides.mp4, Screen, 2.0 s',
      'kiln plan.svg, Screen, 5.0 s',
      'old slides.mp4, Screen, 2.0 s',
    ]);
  const lane = page.locator('[data-lane=voice]');
  await page
    .getByRole('button', { name: 'narration.wav', exact: true })
    .dragTo(lane, { targetPosition: { x: 2, y: 3 } });
  await expect(page.locator('[data-clip][data-lane-kind=voice]')).toHaveCount(1);

  // Used footage asks first, and says where it is; the undo brings all back.
  await page.getByRole('button', { name: 'Delete old slides.mp4 from Footage' }).click();
  const asked = page.getByRole('dialog', { name: 'Delete “old slides.mp4”?' });
  await expect(asked.getByRole('list').getByText('00:00:00:00 to 00:00:02:00')).toBeVisible();
  await asked.getByRole('button', { name: 'Delete and lift its clips' }).click();
  await expect.poll(labels).toEqual(['kiln plan.svg, Screen, 5.0 s']);
  await page.getByRole('button', { name: 'Undo', exact: true }).last().click();
  await expect.poll(async () => (await labels()).length).toBe(3);
  await expect(rows.filter({ hasText: 'old slides.mp4' })).toHaveCount(1);
  await saved(page);

  // A file that is gone is named; a shorter one is refused, the right one taken.
  const footage = (await (await page.request.get(`/api/projects/${id}/footage`)).json()) as {
    id: string;
    name: string;
  }[];
  const home = join(dataFolder(), 'footage', footage.find((f) => f.name === 'old slides.mp4')!.id);
  const original = readdirSync(home).find((f) => f.endsWith('.mp4') && f !== 'proxy.mp4')!;
  rmSync(join(home, original));
  await expect(slides.getByText('Its file is no longer on the disk')).toBeVisible();
  const short = join(folder, 'short.mp4');
  ffmpeg(
    '-f',
    'lavfi',
    '-i',
    'testsrc2=s=800x600:r=25:d=1',
    '-c:v',
    'libx264',
    '-pix_fmt',
    'yuv420p',
    short,
  );
  await page.getByLabel('File for old slides.mp4').setInputFiles(short);
  await expect(
    message(page, /short.mp4 is 1.0 s long, but clips use old slides.mp4 up to 3.0 s/),
  ).toBeVisible();
  const red = join(folder, 'red slides.mp4');
  ffmpeg(
    ...['-f', 'lavfi', '-i', 'color=red:s=800x600:r=25:d=6', '-c:v', 'libx264'],
    ...['-pix_fmt', 'yuv420p', red],
  );
  // The old one was seen; the new one is in its place, in the Picture too.
  await goTo(page, '0.5');
  const middle = async () => {
    const image = await loadImage(await page.getByTestId('picture').screenshot());
    const context = createCanvas(image.width, image.height).getContext('2d');
    context.drawImage(image, 0, 0);
    const [r, g, b] = context.getImageData(image.width >> 1, image.height >> 1, 1, 1).data;
    return r! - Math.max(g!, b!);
  };
  expect(await middle()).toBeLessThan(100);
  await page.getByLabel('File for old slides.mp4').setInputFiles(red);
  await expect(slides.getByText('Its file is no longer on the disk')).toHaveCount(0, {
    timeout: 30_000,
  });
  await expect.poll(middle, { timeout: 30_000 }).toBeGreaterThan(200);

  // A music bed from the shelf.
  await page.getByRole('button', { name: 'Music shelf' }).click();
  await page.getByRole('button', { name: 'Add Night kiln to Footage' }).click();
  await page.keyboard.press('Escape');
  await expect(rows.filter({ hasText: 'Night kiln.wav' })).toContainText('1:12', {
    timeout: 60_000,
  });
});

test('a file that is still being written is told from a broken connection', async ({
  page,
}, testInfo) => {
  await openDemo(page);
  await page.getByRole('tab', { name: 'Footage' }).click();
  const path = testInfo.outputPath('growing.mp4');
  copyFileSync('demo/media/presenter-take-2.mp4', path);
  let grown = false;
  await page.route('**/api/uploads**', async (route) => {
    if (!grown) appendFileSync(path, Buffer.alloc(1000));
    grown = true;
    await route.continue();
  });
  await page.getByLabel('Recordings to add').setInputFiles(path);
  await expect(message(page, /growing\.mp4 changed while it was being sent/)).toBeVisible();
  await page.getByLabel('Recordings to add').setInputFiles(path);
  await expect(page.getByRole('button', { name: /^growing\.mp4/ })).toBeVisible();
});
