import { EditError } from '@/core/edit/error';
import { localContext } from '@/server/context';
import { closeDatabase } from '@/server/db/connection';
import { Problem, sentenceFor } from '@/server/problem';
import { readArguments, UsageError } from './arguments';
import { VERBS } from './verbs';

/** Where a call is made from. */
export interface Terminal {
  /** Takes the answer. */
  readonly out: (text: string) => void;
  /** Takes refusals and progress. */
  readonly err: (text: string) => void;
  /** Whether what `err` takes is seen by a person, where a line can be written over. */
  readonly isLive: boolean;
  /** Aborted when the person stops the call. */
  readonly signal: AbortSignal;
}

const usage = () =>
  `Usage: vistum <verb> [--json]\n${Object.values(VERBS)
    .map((v) => `  ${v.usage}`)
    .join('\n')}\n`;

/** Progress: one line that is written over where it is seen live, lines elsewhere. */
function progressLine({ err, isLive }: Terminal): (line: string) => void {
  let last = '';
  return (line) => {
    if (line === last) return;
    last = line;
    err(isLive ? `\r\x1b[K${line}` : `${line}\n`);
  };
}

/** Runs a call; answers the exit code: 0 done, 1 refused with one sentence, 2 wrong usage. */
export async function runCall(argv: readonly string[], terminal: Terminal): Promise<number> {
  const { out, err, signal } = terminal;
  try {
    const { verb, operands, values } = readArguments(argv);
    if (values.help) {
      out(usage());
      return 0;
    }
    if (!verb) throw new UsageError('Name a verb.');
    const found = Object.hasOwn(VERBS, verb) ? VERBS[verb]! : null;
    if (!found) throw new UsageError(`There is no verb "${verb}".`);
    const progress = progressLine(terminal);
    const {
      json,
      text,
      exit = 0,
    } = await found.run({
      ...{ operands, values, signal, progress },
      open: localContext,
    });
    out(`${values.json ? JSON.stringify(json) : text}\n`);
    return exit;
  } catch (error) {
    if (error instanceof UsageError) {
      err(`${error.message}\n${usage()}`);
      return 2;
    }
    err(`${refusal(error, signal)}\n`);
    return 1;
  } finally {
    await closeDatabase();
  }
}

/** What is said of a call that failed: a sentence, and the place of each fault. */
function refusal(error: unknown, signal: AbortSignal): string {
  if (error instanceof EditError) return error.message;
  const sentence = signal.aborted ? 'Stopped.' : sentenceFor(error);
  if (!(error instanceof Problem) || !Array.isArray(error.details.faults)) return sentence;
  const faults = error.details.faults as readonly { path: string; message: string }[];
  return [sentence, ...faults.map((f) => `  ${f.path} ${f.message}`)].join('\n');
}
