import type { AgainTask } from '@/contract/analyses';
import type { AgainOrder } from '../tools/again';
import { byTool, foundOrNot } from './by-tool';

/** Where the pointer is around a time at which a person said where it is. */
export const pointerAgain = byTool('again', {
  says: 'Looking for the pointer again',
  order: (facts, parameters): AgainOrder => ({ facts, task: JSON.parse(parameters) as AgainTask }),
  confidence: foundOrNot,
});
