/**
 * Ends a switch over kinds: the compiler refuses a call that can be reached, so that a new kind
 * can't be forgotten.
 *
 * @throws Error when a value from outside reaches it all the same
 */
export function assertNever(value: never): never {
  throw new Error(`Unexpected ${JSON.stringify(value)}`);
}
