'use client';
import { useMemo } from 'react';
import { useChosenKeys, withChosenKeys, type Chosen, type Keyed } from '../keys/chosen';

/** Everything that can be done by key while recording, and the key it comes with. */
const ACTIONS = [
  ['record', 'Record or stop', 'Alt+Enter'],
  ['pause', 'Pause or resume', 'Alt+.'],
  ['mark', 'Marker', 'Alt+M'],
  ['next', 'Next step', 'Alt+ArrowDown'],
  ['back', 'Step before', 'Alt+ArrowUp'],
  ['redo', 'Keep and do it again', 'Alt+Shift+R'],
  ['corner', 'Layout: presenter in a corner', 'Alt+1'],
  ['side', 'Layout: side by side', 'Alt+2'],
  ['presenter', 'Layout: presenter only', 'Alt+3'],
  ['screen', 'Layout: screen only', 'Alt+4'],
  ['pen', 'Pen', 'Alt+L'],
  ['operate', 'Operate (no drawing)', 'Alt+O'],
  ['clear', 'Clear drawings', 'Alt+C'],
] as const;
export type RecordAction = (typeof ACTIONS)[number][0];

/** As keys are chosen for: beside the commands of other places. */
export const RECORD_KEYS: readonly Keyed[] = ACTIONS.map(([action, label, key]) => ({
  id: `record-${action}`,
  label,
  keys: [key],
}));

type KeysOfActions = Readonly<Record<RecordAction, readonly string[]>>;

/** The keys of each action, as they are now. */
export const recordKeys = (chosen?: Chosen): KeysOfActions =>
  Object.fromEntries(
    ACTIONS.map(([action], i) => [action, withChosenKeys(RECORD_KEYS[i]!, chosen).keys]),
  ) as KeysOfActions;

/** The first key of each action, to be shown beside what it does; empty where it has none. */
export function useRecordKeyNames(): Readonly<Record<RecordAction, string>> {
  const chosen = useChosenKeys();
  return useMemo(() => {
    const names = Object.entries(recordKeys(chosen)).map(([action, keys]) => [
      action,
      keys[0] ?? '',
    ]);
    return Object.fromEntries(names) as Record<RecordAction, string>;
  }, [chosen]);
}
