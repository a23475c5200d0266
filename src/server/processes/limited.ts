import { spawn, type ChildProcess, type SpawnOptions } from 'node:child_process';
import { existsSync } from 'node:fs';
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
