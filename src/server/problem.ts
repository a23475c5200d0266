/**
 * Something that was asked for and can't be done, with a sentence that says what
 * to do. Over HTTP it becomes a JSON problem (RFC 9457), on the command line a line on stderr.
 */
export class Problem extends Error {
  override readonly name = 'Problem';

  constructor(
    readonly status: number,
    message: string,
    /** More properties for the JSON problem. */
    readonly details: Readonly<Record<string, unknown>> = {},
  ) {
    super(message);
  }
}

export const notFound = (what: string): Problem =>
  new Problem(404, `There is no ${what} with that id. It may have been deleted.`);

/** The sentence for a file system error, or null when it is none that a person can mend. */
export function describeSystemError(error: unknown): string | null {
  const text =
    String((error as { code?: unknown })?.code ?? '') + String((error as Error)?.message ?? error);
  if (/ENOSPC|No space left/i.test(text))
    return 'The disk is full. Free some space, then try again; nothing that was there is lost.';
  if (/EDQUOT|quota exceeded/i.test(text))
    return 'Your disk quota is used up. Free some space, then try again.';
  if (/EACCES|EPERM|Permission denied|EROFS|Read-only file system/i.test(text))
    return 'Vistum may not write there. Check the permissions of the folder.';
  if (/SQLITE_FULL/i.test(text))
    return 'The disk is full. Free some space, then try again; nothing that was there is lost.';
  return null;
}

/** What to tell a person about a failure. */
export function sentenceFor(error: unknown): string {
  if (error instanceof Problem) return error.message;
  return (
    describeSystemError(error) ??
    `Something unexpected happened: ${error instanceof Error ? error.message : String(error)}`
  );
}
