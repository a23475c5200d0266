import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import * as analyses from '@/contract/analyses';
import * as disk from '@/contract/disk';
import * as exported from '@/contract/exports';
import * as footage from '@/contract/footage';
import * as presets from '@/contract/presets';
import * as projects from '@/contract/projects';
import { address, type Route } from '@/contract/route';
import * as state from '@/contract/state';
import * as takes from '@/contract/takes';

const API = join(process.cwd(), 'src/app/api');
const METHODS = ['GET', 'POST', 'PUT', 'PATCH', 'DELETE', 'HEAD', 'OPTIONS'];

const isRoute = (value: unknown): value is Route =>
  typeof value === 'object' && value !== null && 'method' in value && 'path' in value;
const described = [analyses, disk, exported, footage, presets, projects, state, takes]
  .flatMap((resource) => Object.values(resource) as unknown[])
  .filter(isRoute);
const named = ({ method, path }: Route) => `${method} ${path}`;

/** Each handler that the application serves, with the address at which it does. */
async function served() {
  const files = readdirSync(API, { recursive: true, encoding: 'utf8' });
  const found: { name: string; route: Route | undefined }[] = [];
  for (const file of files.filter((name) => name.endsWith('route.ts'))) {
    const path = `/api/${file.replace('/route.ts', '').replace(/\[(\w+)\]/g, ':$1')}`;
    // Uploads follow a protocol of their own, described elsewhere.
    if (path.startsWith(footage.UPLOADS)) continue;
    const handlers = (await import(join(API, file))) as Record<string, { route?: Route }>;
    for (const method of METHODS)
      if (handlers[method])
        found.push({ name: `${method} ${path}`, route: handlers[method].route });
  }
  return found;
}

test('what the contract describes is served where it says, and nothing else is', async () => {
  const all = await served();
  expect(all.map(({ name }) => name).sort()).toEqual(described.map(named).sort());
  for (const { name, route } of all) expect(route && named(route)).toBe(name);
});

test('an address carries whatever its parts are, and what is asked besides', () => {
  expect(address(takes.takePart, { id: 'a/b?c', name: 'é' })).toBe(
    '/api/takes/a%2Fb%3Fc/tracks/%C3%A9',
  );
  expect(address(projects.readChanges, { id: 'p' }, { since: 7 })).toBe(
    '/api/projects/p/changes?since=7',
  );
  expect(address(exported.readExported, { id: 'e' }, { download: '' })).toBe(
    '/api/exports/e/video?download',
  );
});
