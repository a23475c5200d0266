import { spawn, type ChildProcess, type SpawnOptions } from 'node:child_process';
import { existsSync } from 'node:fs';
import { execa, type Options } from 'execa';
import { markedEnvironment } from './leftovers';

/*
 * Programs that read what strangers made run with limits of their own, and end with whoever started
 * them.
 */

const PRLIMIT = '/usr/bin/prlimit';
const SETPRIV = '/usr/bin/setpriv';

export interface ProcessLimits {
  /** Bytes of memory that it may fill; not given, as much as there is. */
  readonly memory?: number;
  /** Bytes of any one file that it writes. */
  readonly output?: number;
}

/**
 * The command that runs a program within limits and ends it when its parent ends, however that
 * ends: both programs of util-linux that see to it make way for the one that they start, so that it
 * keeps their process id. Where they are not installed the program runs as it is.
 */
export function limitedCommand(
  program: string,
  args: readonly string[],
  { memory, output }: ProcessLimits,
): readonly [string, readonly string[]] {
  let command: readonly [string, ...string[]] = [program, ...args];
  if (existsSync(SETPRIV)) command = [SETPRIV, '--pdeathsig', 'KILL', ...command];
  if (existsSync(PRLIMIT)) {
    const limits = [
      '--core=0:0',
      // What is filled counts, not what is only reserved or mapped from files.
      ...(memory ? [`--data=${Math.round(memory)}:${Math.round(memory)}`] : []),
      ...(output ? [`--fsize=${Math.round(output)}:${Math.round(output)}`] : []),
    ];
    command = [PRLIMIT, ...limits, ...command];
  }
  const [first, ...rest] = command;
  return [first, rest];
}

/** Starts a program within limits, without a shell, as part of the job that is being done. */
export function spawnLimited(
  program: string,
  args: readonly string[],
  limits: ProcessLimits,
  options: SpawnOptions,
): ChildProcess {
  const [command, all] = limitedCommand(program, args, limits);
  return spawn(command, [...all], { env: markedEnvironment(), ...options });
}

/** How a program is run to its end. */
export interface LimitedRun {
  readonly signal?: AbortSignal;
  /** After so many seconds it is ended. */
  readonly seconds: number;
  /** Bytes of output at most. */
  readonly most: number;
}

/**
 * Runs a program within limits to its end, without a shell, as part of the job that is being done;
 * what passes a limit is ended at once. Does not throw: how it ended stands in the result.
 *
 * @param more how `execa` is to treat its output
 */
export function runLimited<const O extends Options>(
  program: string,
  args: readonly string[],
  limits: ProcessLimits,
  { signal, seconds, most }: LimitedRun,
  more: O,
) {
  const [command, all] = limitedCommand(program, args, limits);
  return execa(command, all, {
    ...more,
    env: markedEnvironment(),
    extendEnv: false,
    reject: false,
    // It ends with its parent by itself.
    cleanup: false,
    stdin: 'ignore',
    encoding: 'buffer',
    stripFinalNewline: false,
    maxBuffer: most,
    timeout: seconds * 1000,
    killSignal: 'SIGKILL',
    ...(signal && { cancelSignal: signal }),
  });
}
