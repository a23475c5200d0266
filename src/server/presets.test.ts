import { rmSync } from 'node:fs';
import { scratchFolder } from './testing/media';

const folder = scratchFolder();
process.env.VISTUM_DATA = folder;

import { USUAL_TASTE } from '@/core/framing/taste';
import { localContext, type ServerContext } from './context';
import { closeDatabase } from './db/connection';
import { deletePreset, listPresets, renamePreset, savePreset } from './presets';

let context: ServerContext;
beforeAll(async () => {
  context = await localContext();
});
afterAll(async () => {
  await closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});

test('saved areas are replaced by name, renamed and deleted', async () => {
  const value = { x: 0, y: 0, width: 1280, height: 720 };
  const id = await savePreset(context, 'area', ' Work area ', value);
  expect(await savePreset(context, 'area', 'Work area', { ...value, x: 10 })).toBe(id);
  expect(await listPresets(context, 'area')).toEqual([
    { id, name: 'Work area', value: { ...value, x: 10 } },
  ]);
  await renamePreset(context, 'area', id, 'Table');
  await expect(renamePreset(context, 'area', id, '  ')).rejects.toMatchObject({ status: 400 });
  await expect(renamePreset(context, 'area', 'none', 'x')).rejects.toMatchObject({ status: 404 });
  expect((await listPresets(context, 'area'))[0]!.name).toBe('Table');
  await deletePreset(context, 'area', id);
  expect(await listPresets(context, 'area')).toEqual([]);
});

test('kinds do not mix: names, values and what is done to them are of one kind', async () => {
  const area = await savePreset(context, 'area', 'Usual', { x: 0, y: 0, width: 640, height: 360 });
  const taste = await savePreset(context, 'taste', 'Usual', USUAL_TASTE);
  expect(taste).not.toBe(area);
  expect(await listPresets(context, 'taste')).toEqual([
    { id: taste, name: 'Usual', value: USUAL_TASTE },
  ]);
  await expect(renamePreset(context, 'taste', area, 'x')).rejects.toMatchObject({ status: 404 });
  await deletePreset(context, 'taste', area);
  expect(await listPresets(context, 'area')).toHaveLength(1);
});

test('what is no value of its kind, and kinds that there are not, are refused', async () => {
  for (const value of [{ ...USUAL_TASTE, lively: 7 }, { hold: 2 }, { ...USUAL_TASTE, more: 1 }])
    await expect(savePreset(context, 'taste', 'Odd', value)).rejects.toMatchObject({ status: 400 });
  for (const kind of ['constructor', '__proto__', 'looks'])
    await expect(savePreset(context, kind, 'Odd', {})).rejects.toMatchObject({ status: 404 });
  // One that was damaged is left out.
  const id = await savePreset(context, 'taste', 'Damaged', USUAL_TASTE);
  await context.db.presets.update({ value: '{"lively":' }, { where: { id } });
  expect((await listPresets(context, 'taste')).map(({ name }) => name)).not.toContain('Damaged');
});

test('a style is kept, and what is none is refused', async () => {
  const style = { kind: 'arrow', settings: { width: 12, color: '#123456', sharp: true } };
  await savePreset(context, 'style', 'House', style);
  expect(await listPresets(context, 'style')).toMatchObject([{ name: 'House', value: style }]);
  for (const bad of [
    { ...style, kind: 'star' },
    { ...style, settings: { width: { much: 1 } } },
    { ...style, settings: { ['x'.repeat(200)]: 1 } },
    { ...style, also: 1 },
  ])
    await expect(savePreset(context, 'style', 'Bad', bad)).rejects.toThrow();
});
