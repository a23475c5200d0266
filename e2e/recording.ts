import { expect, type Page } from '@playwright/test';
import type { History } from '../src/core/edit/history';
import type { Project } from '../src/core/project/model';

interface Take {
  readonly id: string;
  readonly stepId: string | null;
  readonly number: number;
  readonly status: string;
  readonly seconds: number;
  readonly reason: string | null;
  readonly footage: Record<string, string>;
}

export const dataFolder = () => process.env.VISTUM_TEST_DATA ?? '/tmp/vistum-e2e';
export const openDocument = async (page: Page, id: string) =>
  (await (await page.request.get(`/api/projects/${id}`)).json()) as {
    project: Project;
    history: History;
  };
export const takesOf = async (page: Page, id: string) =>
  (await (await page.request.get(`/api/projects/${id}/takes`)).json()) as Take[];
export const saved = (page: Page) =>
  expect(page.getByRole('status').filter({ hasText: /^saved$/ })).toBeVisible();

export async function newProject(page: Page, name: string): Promise<string> {
  await page.goto('/');
  await page.getByRole('button', { name: 'New project' }).first().click();
  await page.getByRole('textbox', { name: 'Name' }).fill(name);
  await page.getByRole('button', { name: 'Make project' }).click();
  await page.waitForURL(/\/projects\/[^/]+\/outline/);
  return /projects\/([^/]+)/.exec(page.url())![1]!;
}

export async function noCountdown(page: Page): Promise<void> {
  await page.addInitScript(() =>
    localStorage.setItem('record-settings', JSON.stringify({ countdown: 0 })),
  );
}

/** Records for a while and stops; the review is open then. */
export async function record(page: Page, during: () => Promise<void>): Promise<void> {
  await page.keyboard.press('Alt+Enter');
  await expect(page.getByTestId('elapsed')).toBeVisible();
  await during();
  await page.keyboard.press('Alt+Enter');
  await expect(page.getByRole('region', { name: 'Review' })).toBeVisible({ timeout: 40_000 });
}

export async function keep(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByRole('region', { name: 'Review' })).toHaveCount(0, { timeout: 40_000 });
}
