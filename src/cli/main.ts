import 'reflect-metadata';
import { EditError } from '@/core/edit/error';
import { localContext } from '@/server/context';
import { closeDatabase } from '@/server/db/connection';
import { Problem, sentenceFor } from '@/server/problem';
import { readArguments, UsageError } from './arguments';
import { VERBS } from './verbs';

const usage = () =>
  `Usage: vistum <verb> [--json]\n${Object.values(VERBS)
    .map((v) => `  ${v.usage}`)
    .join('\n')}\n`;

/** Progress goes to stderr: one line that is written over in a terminal, lines elsewhere. */
function progressLine(): (line: string) => void {
  let last = '';
  return (line) => {
    if (line === last) return;
    last = line;
    process.stderr.write(process.stderr.isTTY ? `\r\x1b[K${line}` : `${line}\n`);
  };
}

/** Runs a call; answers the exit code: 0 done, 1 refused with one sentence, 2 wrong usage. */
async function main(argv: readonly string[]): Promise<number> {
  const abort = new AbortController();
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => abort.abort());
  try {
    const { verb, operands, values } = readArguments(argv);
    if (values.help) {
      process.stdout.write(usage());
      return 0;
    }
    if (!verb) throw new UsageError('Name a verb.');
    const found = Object.hasOwn(VERBS, verb) ? VERBS[verb]! : null;
    if (!found) throw new UsageError(`There is no verb "${verb}".`);
    const { json, text } = await found.run({
      operands,
      values,
      open: localContext,
      signal: abort.signal,
      progress: progressLine(),
    });
    process.stdout.write(`${values.json ? JSON.stringify(json) : text}\n`);
    return 0;
  } catch (error) {
    if (error instanceof UsageError) {
      process.stderr.write(`${error.message}\n${usage()}`);
      return 2;
    }
    const sentence =
      error instanceof EditError
        ? error.message
        : abort.signal.aborted
          ? 'Stopped.'
          : sentenceFor(error);
    const faults =
      error instanceof Problem && Array.isArray(error.details.faults)
        ? (error.details.faults as { path: string; message: string }[])
        : [];
    process.stderr.write(
      `${sentence}\n${faults.map((f) => `  ${f.path} ${f.message}\n`).join('')}`,
    );
    return 1;
  } finally {
    await closeDatabase();
  }
}

process.exitCode = await main(process.argv.slice(2));
process.exit();
