import type { Preset, PresetKind } from '@/contract/presets';

const FORMAT = 'vistum-presets';

/** What is saved of a kind as a file that another Vistum reads. */
export const presetFile = (kind: PresetKind, presets: readonly Preset[]): string =>
  `${JSON.stringify(
    {
      format: FORMAT,
      version: 1,
      kind,
      presets: presets.map(({ name, value }) => ({ name, value })),
    },
    null,
    2,
  )}\n`;

/** Something saved, as a file has it; whether its value is one is checked where it is kept. */
export interface FiledPreset {
  readonly name: string;
  readonly value: object;
}

const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/**
 * What a file has of a kind.
 *
 * @throws Error with a sentence for a file that is none, or of another kind
 */
export function readPresetFile(kind: PresetKind, text: string): FiledPreset[] {
  let read: unknown;
  try {
    read = JSON.parse(text);
  } catch {
    throw new Error('This file can’t be read. Choose one that Vistum wrote.');
  }
  if (!isObject(read) || read.format !== FORMAT || !Array.isArray(read.presets))
    throw new Error('This file holds nothing saved by Vistum. Choose one that it wrote.');
  if (read.kind !== kind)
    throw new Error(`This file holds what was saved of another kind (${String(read.kind)}).`);
  return read.presets.map((one: unknown) => {
    if (!isObject(one) || typeof one.name !== 'string' || !isObject(one.value))
      throw new Error('Something in this file has no name or no value. Nothing was taken over.');
    return { name: one.name, value: one.value };
  });
}

/** A name that none of those has: with a number where it is taken. */
export function freeName(name: string, taken: ReadonlySet<string>): string {
  let free = name;
  for (let n = 2; taken.has(free); n++) free = `${name} ${n}`;
  return free;
}
