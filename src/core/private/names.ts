import { assertNever } from '../assert-never';
import type { PrivateKind } from './patterns';

/** What a kind of private data is called, in the middle of a sentence. */
export function privateName(kind: PrivateKind): string {
  switch (kind) {
    case 'email':
      return 'mail address';
    case 'phone':
      return 'phone number';
    case 'card':
      return 'card number';
    case 'account':
      return 'account number';
    case 'key':
      return 'key or password';
    case 'word':
      return 'word of your list';
    default:
      return assertNever(kind);
  }
}
