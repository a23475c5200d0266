import type { MatteFacts, Sources } from '../project/sources';
import type { FootageKey } from './model';

/**
 * The matte that a key needs, as far as it was made; null where it needs none, or there is none
 * yet.
 */
export function matteOf(
  { mattes }: Pick<Sources, 'mattes'>,
  key: Pick<FootageKey, 'footageId' | 'method' | 'shot'>,
): MatteFacts | null {
  if (key.method === 'wall' || !mattes || !Object.hasOwn(mattes, key.footageId)) return null;
  const shot = key.method === 'shot' ? key.shot : null;
  return (
    mattes[key.footageId]!.find(
      (matte) =>
        matte.method === key.method &&
        matte.shot?.start === shot?.start &&
        matte.shot?.end === shot?.end,
    ) ?? null
  );
}

/** Whether a key is on and can't work because its matte was not made yet. */
export const lacksMatte = (sources: Pick<Sources, 'mattes'>, key: FootageKey): boolean =>
  key.on && key.method !== 'wall' && !matteOf(sources, key);
