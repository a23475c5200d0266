import { join } from 'node:path';
import { Interrupted } from '../processes/interrupted';
import { runLimited } from '../processes/limited';
import { programRoot } from '../places';
import { Problem, problem, type PlainProblem } from '../problem';

const KEPT = 64 << 10;
/** Signals of a program that ran out of what it was given, or failed over its input. */
const OWN = new Set(['SIGABRT', 'SIGSEGV', 'SIGBUS', 'SIGILL', 'SIGFPE', 'SIGTRAP', 'SIGXFSZ']);

export interface ToolRun {
  readonly signal: AbortSignal;
  readonly seconds: number;
  /** Bytes of memory. */
  readonly memory: number;
  /** Is told the share that is done, 0 to 1, by tools that tell it. */
  readonly onProgress?: (share: number) => void;
}

/**
 * Runs one of the tools that read what strangers made (`tools/main.ts`) in a process that can be
 * ended.
 *
 * @returns the JSON value that it answered
 * @throws Problem when it refused its input, or passed its limits (`media-too-slow`); `Interrupted`
 * when it was ended
 */
export async function runTool(
  args: readonly string[],
  { signal, seconds, memory, onProgress }: ToolRun,
): Promise<unknown> {
  signal.throwIfAborted();
  // The engine reserves room for what it compiles, besides what it fills.
  const heap = Math.max(64, Math.floor(memory / (1 << 20)) - 256);
  const running = runLimited(
    process.execPath,
    [`--max-old-space-size=${heap}`, join(programRoot(), 'dist', 'tool.mjs'), ...args],
    { memory },
    { signal, seconds, most: KEPT },
    { stderr: onProgress ? 'pipe' : 'ignore', buffer: { stderr: false } },
  );
  // Each piece ends with the share that counts.
  running.stderr?.on('data', (said: Buffer) => {
    const share = Number(String(said).trim().split('\n').pop());
    if (Number.isFinite(share)) onProgress?.(share);
  });
  const ended = await running;
  signal.throwIfAborted();
  if (ended.timedOut || (ended.signal && OWN.has(ended.signal))) throw problem('media-too-slow');
  if (ended.signal && !ended.isMaxBuffer) throw new Interrupted(problem('media-killed').message);
  const said = Buffer.from(ended.stdout).toString();
  const answer = JSON.parse(said || '{}') as { value?: unknown; problem?: PlainProblem };
  if (answer.problem) throw Problem.of(answer.problem);
  if (ended.exitCode !== 0 || !('value' in answer)) throw problem('unexpected');
  return answer.value;
}
