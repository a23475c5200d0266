import { nanoid } from 'nanoid';
import { database } from './db/connection';
import { jsonOr } from './db/stored';
import { notFound, problem } from './problem';

/** Something set up once and used again, under a name. */
export interface Preset<T = unknown> {
  readonly id: string;
  readonly name: string;
  readonly value: T;
}

const cleanName = (name: string): string => {
  const clean = name.trim().slice(0, 100);
  if (!clean) throw problem('name-missing', 'preset');
  return clean;
};

/** Presets of a kind, by name. */
export async function listPresets(kind: string): Promise<Preset[]> {
  const { presets } = await database();
  const rows = await presets.findAll({ where: { kind }, order: [['name', 'ASC']] });
  return rows.map(({ id, name, value }) => ({ id, name, value: jsonOr<unknown>(value, null) }));
}

/** Saves a preset; one of the same name is replaced. */
export async function savePreset(kind: string, name: string, value: unknown): Promise<string> {
  const { presets } = await database();
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

export async function renamePreset(id: string, name: string): Promise<void> {
  const { presets } = await database();
  const row = await presets.findByPk(id);
  if (!row) throw notFound('preset');
  await row.update({ name: cleanName(name) });
}

export async function deletePreset(id: string): Promise<void> {
  const { presets } = await database();
  await presets.destroy({ where: { id } });
}
