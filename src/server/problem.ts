import { CATALOGUE, type Code } from './catalogue';

/** A problem as plain data, for the way between threads and processes, where classes are lost. */
export interface PlainProblem {
  readonly code: Code;
  readonly status: number;
  readonly message: string;
}

/**
 * Something that was asked for and can't be done, with a sentence that says what
 * to do. Over HTTP it becomes a JSON problem (RFC 9457), on the command line a line on stderr.
 */
export class Problem extends Error {
  override readonly name = 'Problem';

  constructor(
    readonly code: Code,
    readonly status: number,
    message: string,
    /** More properties for the JSON problem. */
    readonly details: Readonly<Record<string, unknown>> = {},
  ) {
    super(message);
  }

  /** The same problem with more properties for its JSON. */
  with(details: Readonly<Record<string, unknown>>): Problem {
    return new Problem(this.code, this.status, this.message, details);
  }

  /** The problem as plain data. */
  plain(): PlainProblem {
    return { code: this.code, status: this.status, message: this.message };
  }

  /** The problem that plain data describes. */
  static of({ code, status, message }: PlainProblem): Problem {
    return new Problem(code, status, message);
  }
}

/** The problem of a code of the catalogue, with what its sentence names. */
export function problem<C extends Code>(
  code: C,
  ...args: Parameters<(typeof CATALOGUE)[C]['say']>
): Problem {
  const { status, say } = CATALOGUE[code];
  return new Problem(code, status, (say as (...all: unknown[]) => string)(...args));
}

/** What is asked for by an id that nothing has. */
export const notFound = (what: string): Problem => problem('not-found', what);

type SystemCode =
  | 'system-disk-full'
  | 'system-quota'
  | 'system-file-too-large'
  | 'system-not-allowed'
  | 'system-too-many-files'
  | 'system-busy'
  | 'database-damaged'
  | 'database-foreign';

const SYSTEM_ERRORS: readonly (readonly [RegExp, SystemCode])[] = [
  [/ENOSPC|No space left|SQLITE_FULL|database or disk is full/i, 'system-disk-full'],
  [/EDQUOT|quota exceeded/i, 'system-quota'],
  [/EFBIG|File too large/i, 'system-file-too-large'],
  [
    /EACCES|EPERM|Permission denied|EROFS|Read-only file system|SQLITE_READONLY|readonly database/i,
    'system-not-allowed',
  ],
  [/EMFILE|ENFILE|Too many open files/i, 'system-too-many-files'],
  [/SQLITE_BUSY|database is locked/i, 'system-busy'],
  [/SQLITE_CORRUPT|database disk image is malformed/i, 'database-damaged'],
  [/SQLITE_NOTADB|file is not a database/i, 'database-foreign'],
];

/** The problem behind a file system or database error, or null when a person can't mend it. */
export function systemProblem(error: unknown): Problem | null {
  const { code, parent, message } = (error ?? {}) as {
    code?: unknown;
    parent?: { code?: unknown; message?: unknown };
    message?: unknown;
  };
  const text = [code, parent?.code, message ?? error, parent?.message].map(String).join(' ');
  const found = SYSTEM_ERRORS.find(([pattern]) => pattern.test(text));
  return found ? problem(found[1]) : null;
}

/** What to tell a person about any failure; never a path of the machine or a stack. */
export function problemFor(error: unknown): Problem {
  if (error instanceof Problem) return error;
  return systemProblem(error) ?? problem('unexpected');
}

/** The sentence for any failure. */
export const sentenceFor = (error: unknown): string => problemFor(error).message;
