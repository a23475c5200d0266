'use client';
import { useQuery, type UseQueryResult } from '@tanstack/react-query';
import { call } from '@/contract/call';
import { listPresets, type Preset, type PresetKind, type PresetValues } from '@/contract/presets';

/** What the presets of a kind are kept by. */
export const presetsKey = (kind: PresetKind) => ['presets', kind] as const;

/** What was saved of a kind; asked for while it is wanted. */
export const useSavedPresets = <K extends PresetKind>(
  kind: K,
  wanted = true,
): UseQueryResult<readonly Preset<PresetValues[K]>[]> =>
  useQuery({
    queryKey: presetsKey(kind),
    enabled: wanted,
    // The kind that is asked for says what the values are.
    queryFn: async () =>
      (await call(listPresets, { params: { kind } })) as readonly Preset<PresetValues[K]>[],
  });
