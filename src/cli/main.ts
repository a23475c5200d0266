import 'reflect-metadata';
import { runCall } from './run';

const abort = new AbortController();
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => abort.abort());
process.exitCode = await runCall(process.argv.slice(2), {
  out: (text) => process.stdout.write(text),
  err: (text) => process.stderr.write(text),
  isLive: process.stderr.isTTY,
  signal: abort.signal,
});
// What goes into a pipe is written later: ending at once would cut a long answer off.
process.stdout.write('', () => process.exit());
