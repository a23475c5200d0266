import { rmSync } from 'node:fs';
import type { ProjectState } from '@/contract/state';
import { scratchFolder } from '../testing/media';

const folder = scratchFolder();
process.env.VISTUM_DATA = folder;

import { closeDatabase } from '../db/connection';
import { newProject, renameProject, setProjectDeleted } from '../projects';
import { ChangeFeed } from './feed';
import { localContext, type ServerContext } from '../context';

let context: ServerContext;
beforeAll(async () => {
  context = await localContext();
});

const rate = { num: 30, den: 1 };
let feed: ChangeFeed;
beforeEach(() => (feed = new ChangeFeed(context)));
afterEach(() => feed.close());
afterAll(async () => {
  await closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});

const until = async (what: () => boolean) => {
  for (const end = Date.now() + 20_000; !what();) {
    if (Date.now() > end) throw new Error('It did not come to that');
    await new Promise((resolve) => setTimeout(resolve, 10));
  }
};
const nameIn = (told: (string | null)[]) =>
  told.at(-1) ? (JSON.parse(told.at(-1)!) as ProjectState).name : null;

test('all who listen to a project hear of its changes, and of no other’s', async () => {
  const [one, two] = [
    await newProject(context, 'One', 1280, 720, rate),
    await newProject(context, 'Two', 1280, 720, rate),
  ];
  const heard: Record<string, (string | null)[]> = { a: [], b: [], c: [] };
  feed.listen(one, (state) => heard.a!.push(state));
  feed.listen(one, (state) => heard.b!.push(state));
  feed.listen(two, (state) => heard.c!.push(state));
  await until(() => Object.values(heard).every((list) => list.length === 1));
  await renameProject(context, one, 'Uno');
  await until(() => nameIn(heard.a!) === 'Uno' && nameIn(heard.b!) === 'Uno');
  expect(heard.c).toHaveLength(1);
  expect(feed.count).toBe(3);
});

test('for a crowd that comes at once the project is read once', async () => {
  const id = await newProject(context, 'Crowded', 1280, 720, rate);
  const { footage } = context.db;
  const read = jest.spyOn(footage, 'findAll');
  const told: unknown[] = [];
  for (let i = 0; i < 100; i++) feed.listen(id, () => told.push(1));
  await until(() => told.length === 100);
  expect(read).toHaveBeenCalledTimes(1);
  read.mockRestore();
});

test('a project that is deleted ends its listeners', async () => {
  const id = await newProject(context, 'Short', 1280, 720, rate);
  const told: (string | null)[] = [];
  feed.listen(id, (state) => told.push(state));
  await until(() => told.length === 1);
  await setProjectDeleted(context, id, true);
  await until(() => told.at(-1) === null);
  expect(feed.count).toBe(0);
});

test('while nothing is written, nothing but one number is asked for, however many listen', async () => {
  const id = await newProject(context, 'Quiet', 1280, 720, rate);
  const told: unknown[] = [];
  const ends = Array.from({ length: 200 }, () => feed.listen(id, () => told.push(1)));
  await until(() => told.length >= 200);
  await new Promise((resolve) => setTimeout(resolve, 700));
  const { sequelize } = context.db;
  const asked = jest.spyOn(sequelize, 'query');
  await new Promise((resolve) => setTimeout(resolve, 1500));
  expect(asked).not.toHaveBeenCalled();
  asked.mockRestore();
  for (const end of ends) end();
  expect(feed.count).toBe(0);
});
