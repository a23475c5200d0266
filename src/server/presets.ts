import type { TSchema } from '@sinclair/typebox';
import { nanoid } from 'nanoid';
import type { Preset, PresetKind } from '@/contract/presets';
import { SavedCallout } from '@/core/callout/saved';
import { CalloutStyle } from '@/core/callout/style';
import { Taste } from '@/core/framing/taste';
import { Layout } from '@/core/layout/model';
import { checkOf } from '@/core/schema/check';
import { SavedLooks } from '@/core/pointer/model';
import { FootageRect } from '@/core/schema/parts';
import type { ServerContext } from './context';
import { jsonOr } from './db/stored';
import { notFound, problem } from './problem';

/** What the values of each kind are. */
const KINDS: Readonly<Record<PresetKind, TSchema>> = {
  area: FootageRect,
  taste: Taste,
  pointer: SavedLooks,
  layout: Layout,
  style: CalloutStyle,
  callout: SavedCallout,
};

/** The schema of a kind that a request names. */
function schemaOf(kind: string): TSchema {
  if (!Object.hasOwn(KINDS, kind)) throw notFound('preset');
  return KINDS[kind as PresetKind];
}

const cleanName = (name: string): string => {
  const clean = name.trim().slice(0, 100);
  if (!clean) throw problem('name-missing', 'preset');
  return clean;
};

/** What was saved of a kind, by name; without what can't be read. */
export async function listPresets(context: ServerContext, kind: string): Promise<Preset[]> {
  const schema = schemaOf(kind);
  const { presets } = context.db;
  const rows = await presets.findAll({ where: { kind }, order: [['name', 'ASC']] });
  return rows.flatMap(({ id, name, value }) => {
    const read: unknown = jsonOr(schema, value, null);
    return read ? [{ id, name, value: read }] : [];
  });
}

/**
 * Saves a preset; one of the same kind and name is replaced.
 *
 * @throws Problem for a value that is none of its kind
 */
export async function savePreset(
  context: ServerContext,
  kind: string,
  name: string,
  value: unknown,
): Promise<string> {
  const checked = checkOf(schemaOf(kind))(value);
  if ('faults' in checked) {
    const [{ path, message }] = checked.faults as [{ path: string; message: string }];
    throw problem('bad-body', `value${path} ${message}`);
  }
  const { presets } = context.db;
  const clean = cleanName(name);
  const text = JSON.stringify(checked.value);
  const there = await presets.findOne({ where: { kind, name: clean } });
  if (there) {
    await there.update({ value: text });
    return there.id;
  }
  const id = nanoid();
  await presets.create({ id, kind, name: clean, value: text });
  return id;
}

export async function renamePreset(
  context: ServerContext,
  kind: string,
  id: string,
  name: string,
): Promise<void> {
  const { presets } = context.db;
  const row = await presets.findOne({ where: { kind, id } });
  if (!row) throw notFound('preset');
  await row.update({ name: cleanName(name) });
}

export async function deletePreset(
  context: ServerContext,
  kind: string,
  id: string,
): Promise<void> {
  const { presets } = context.db;
  await presets.destroy({ where: { kind, id } });
}
