'use client';
import { Type, type Static } from '@sinclair/typebox';
import { create } from 'zustand';
import { keep, kept } from '../parts/kept';

const KEPT_AS = 'vistum-keys';

const Chosen = Type.Record(Type.String(), Type.Array(Type.String({ maxLength: 40 })));
export type Chosen = Readonly<Static<typeof Chosen>>;

/** Something that has keys as it comes. */
export interface Keyed {
  readonly id: string;
  readonly label: string;
  /** Keys as `Mod+Shift+Z`; Mod is Ctrl, or Cmd on a Mac. */
  readonly keys: readonly string[];
}

/**
 * The keys that a person chose, by the id of what they do; this browser keeps them. Only those that
 * were chosen, so that the usual ones may change. The page is made without, as the server makes it.
 */
export const useChosenKeys = create<Chosen>()(() => ({}));

/** Keys of recording were kept apart before. */
function keptBefore(): Chosen {
  const found = kept('record-keys', Type.Record(Type.String(), Type.String())) ?? {};
  return Object.fromEntries(Object.entries(found).map(([id, key]) => [`record-${id}`, [key]]));
}

if (typeof window !== 'undefined') useChosenKeys.setState(kept(KEPT_AS, Chosen) ?? keptBefore());

const set = (chosen: Chosen): void => {
  useChosenKeys.setState(chosen, true);
  keep(KEPT_AS, chosen);
};

/** Gives keys to what has an id; null sets it back to those that it comes with. */
export function chooseKeys(id: string, keys: readonly string[] | null): void {
  const { [id]: _before, ...others } = useChosenKeys.getState();
  set(keys ? { ...others, [id]: [...keys] } : others);
}

/** Sets back everything that is listed. */
export const restoreKeys = (ids: readonly string[]): void =>
  set(
    Object.fromEntries(
      Object.entries(useChosenKeys.getState()).filter(([id]) => !ids.includes(id)),
    ),
  );

/** Something with the keys that it has now. */
export function withChosenKeys<T extends Keyed>(
  item: T,
  chosen: Chosen = useChosenKeys.getState(),
): T {
  const keys = chosen[item.id];
  return keys ? { ...item, keys } : item;
}
