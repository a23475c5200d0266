import { createCanvas, loadImage } from '@napi-rs/canvas';
import { expect, test, type Page } from '@playwright/test';
import { goTo, openDemo } from './edit';

/** How steep the edges of the upper part of the Picture are, on the mean; notes stand below. */
async function steepness(page: Page): Promise<number> {
  const image = await loadImage(await page.getByTestId('picture').screenshot());
  const context = createCanvas(image.width, image.height).getContext('2d');
  context.drawImage(image, 0, 0);
  const { data } = context.getImageData(0, 0, image.width, Math.floor(image.height * 0.7));
  let [sum, count] = [0, 0];
  for (let i = 0; i + 8 < data.length; i += 4) {
    const step = Math.abs(data[i + 1]! - data[i + 5]!);
    if (step < 24) continue;
    sum += step;
    count++;
  }
  return sum / Math.max(1, count);
}

test('magnified text is rebuilt, says so, and is shown as it was recorded by a key', async ({
  page,
}) => {
  await openDemo(page);
  await goTo(page, '0:27');
  await page.locator('[data-span=framings]').first().click();
  const magnification = page.getByLabel('Magnification, number');
  await magnification.fill('2.6');
  await magnification.press('Enter');
  await expect(page.getByTestId('framing-rect')).toContainText('2.60× text rebuilt');
  await expect(page.getByText('Text is rebuilt up to 2.67×.')).toBeVisible();
  await magnification.blur();
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('framing-rect')).toHaveCount(0);
  const reading = page.getByTestId('scale-reading');
  await expect(reading).toHaveText('screen 2.60×, text rebuilt');

  await page.keyboard.press('e');
  const sharp = await settled(() => steepness(page));
  await page.keyboard.press('r');
  await expect(page.getByText('Magnified text as it was recorded')).toBeVisible();
  await expect.poll(() => steepness(page)).toBeLessThan(sharp * 0.95);
  await page.keyboard.press('r');
  await expect.poll(() => steepness(page)).toBeCloseTo(sharp, 1);

  await page.keyboard.press('e');

  // The project's own setting, and taking it back.
  await page.getByRole('tab', { name: 'Details' }).click();
  await page.getByLabel('Rebuild magnified text').uncheck();
  await expect(reading).toHaveText('screen 2.60×, soft');
  await page.keyboard.press('Control+z');
  await expect(reading).toHaveText('screen 2.60×, text rebuilt');
});

/** What is measured once there is something, and it no longer changes. */
async function settled(measure: () => Promise<number>): Promise<number> {
  let [before, now] = [NaN, await measure()];
  while (!now || before !== now) [before, now] = [now, await measure()];
  return now;
}
