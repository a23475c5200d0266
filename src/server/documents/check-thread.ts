import { move } from 'piscina';
import { checkSave, checkStored, type FactsById } from './check';
import type { JsonBounds } from '../http/json-bounds';

/* A thread that checks large documents, so that others get their answers meanwhile. */

export type CheckTask =
  | {
      readonly kind: 'save';
      readonly bytes: Uint8Array;
      readonly bounds: JsonBounds;
      readonly footage: FactsById;
    }
  | {
      readonly kind: 'stored';
      readonly document: string;
      readonly history: string;
      readonly footage: FactsById;
      readonly changes: readonly string[];
    };

export default function check(task: CheckTask): unknown {
  if (task.kind === 'stored')
    return checkStored(task.document, task.history, task.footage, task.changes);
  const checked = checkSave(task.bytes, task.bounds, task.footage);
  if ('packed' in checked) move(checked.packed.buffer as ArrayBuffer);
  return checked;
}
