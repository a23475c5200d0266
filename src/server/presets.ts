import type { Static } from '@sinclair/typebox';
import { nanoid } from 'nanoid';
import type { Preset } from '@/contract/presets';
import { FootageRect } from '@/core/schema/parts';
import type { ServerContext } from './context';
import { jsonOr } from './db/stored';
import { notFound, problem } from './problem';

const cleanName = (name: string): string => {
  const clean = name.trim().slice(0, 100);
  if (!clean) throw problem('name-missing', 'preset');
  return clean;
};

/** Areas that were saved, by name; without those that can't be read. */
export async function listAreas(
  context: ServerContext,
): Promise<Preset<Static<typeof FootageRect>>[]> {
  const { presets } = context.db;
  const rows = await presets.findAll({ where: { kind: 'area' }, order: [['name', 'ASC']] });
  return rows.flatMap(({ id, name, value }) => {
    const area = jsonOr(FootageRect, value, null);
    return area ? [{ id, name, value: area }] : [];
  });
}

/** Saves a preset; one of the same name is replaced. */
export async function savePreset(
  context: ServerContext,
  kind: string,
  name: string,
  value: unknown,
): Promise<string> {
  const { presets } = context.db;
  const clean = cleanName(name);
  const there = await presets.findOne({ where: { kind, name: clean } });
  if (there) {
    await there.update({ value: JSON.stringify(value) });
    return there.id;
  }
  const id = nanoid();
  await presets.create({ id, kind, name: clean, value: JSON.stringify(value) });
  return id;
}

export async function renamePreset(
  context: ServerContext,
  id: string,
  name: string,
): Promise<void> {
  const { presets } = context.db;
  const row = await presets.findByPk(id);
  if (!row) throw notFound('preset');
  await row.update({ name: cleanName(name) });
}

export async function deletePreset(context: ServerContext, id: string): Promise<void> {
  const { presets } = context.db;
  await presets.destroy({ where: { id } });
}
