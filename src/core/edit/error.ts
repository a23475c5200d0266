/** An edit that can't be done; the message is a sentence for the person who asked for it. */
export class EditError extends Error {
  override readonly name = 'EditError';
}
