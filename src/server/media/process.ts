import type { ChildProcess, SpawnOptions } from 'node:child_process';
import { Interrupted } from '../processes/interrupted';
import { bytesInWords, limit } from '../limits';
import { problem, systemProblem, type Problem } from '../problem';
import { runLimited, spawnLimited, type ProcessLimits } from '../processes/limited';

/**
 * Demuxers that may open a file from outside; playlists, which point at other files, are not among
 * them.
 */
const FORMATS =
  'mov,mp4,m4a,3gp,matroska,webm,ogg,avi,wav,mp3,flac,aac,png_pipe,jpeg_pipe,webp_pipe,image2';

/** Input options that keep FFmpeg to the one file it was given. */
export const GUARDED_INPUT = [
  '-protocol_whitelist',
  'file,pipe',
  '-format_whitelist',
  FORMATS,
] as const;

const STDERR_KEPT = 8192;

/** Signals by which a program ends over what it reads, rather than being ended by someone. */
const CRASHES = new Set(['SIGSEGV', 'SIGABRT', 'SIGBUS', 'SIGFPE', 'SIGILL']);

/** How a process ended. */
export interface Ending {
  readonly code: number | null;
  readonly signal: string | null;
  /** The last of what it said on stderr. */
  readonly said: string;
}

/** The limits of a process that reads a recording. */
export const mediaLimits = (): ProcessLimits => ({
  memory: limit('mediaMemory'),
  output: limit('mediaOutput'),
});

/** A running media process with the end of what it said on stderr. */
export class MediaProcess {
  readonly child: ChildProcess;
  /** Settles at the end: null when all went well or it was ended by `kill`. */
  readonly ended: Promise<Error | null>;
  private said = '';
  private killed = false;

  constructor(
    program: 'ffmpeg' | 'ffprobe',
    args: readonly string[],
    stdio: SpawnOptions['stdio'],
  ) {
    this.child = spawnLimited(program, args, mediaLimits(), { stdio });
    this.child.stderr?.on('data', (data: Buffer) => {
      this.said = (this.said + data.toString()).slice(-STDERR_KEPT);
    });
    this.ended = new Promise((resolve) => {
      this.child.on('error', (error) => resolve(mediaProblem(String(error))));
      this.child.on('close', (code, signal) =>
        resolve(this.killed ? null : failureOf({ code, signal, said: this.said })),
      );
    });
  }

  /** Ends it; what it has done so far does not count. */
  kill(): void {
    this.killed = true;
    this.child.kill('SIGKILL');
  }
}

/**
 * What the end of a media process means: null when all went well, a problem of its file, or that it
 * was interrupted by something that the file is not to blame for.
 */
export function failureOf({ code, signal, said }: Ending): Problem | Interrupted | null {
  if (code === 0) return null;
  if (signal === 'SIGXFSZ') return problem('system-file-too-large');
  if (signal && CRASHES.has(signal))
    return outOfMemory(said) ?? problem('media-unreadable', 'FFmpeg ended over it');
  if (signal) return new Interrupted(problem('media-killed').message);
  return mediaProblem(said || `FFmpeg ended with code ${code}`);
}

export interface MediaRun {
  readonly signal?: AbortSignal;
  /** After so many seconds it is ended. */
  readonly seconds?: number;
  /** Bytes of output at most. */
  readonly most?: number;
  /** Takes the output as it comes, instead of its being answered. */
  readonly onOutput?: (data: Buffer) => void;
}

/**
 * Runs FFmpeg or ffprobe to its end and answers its standard output.
 *
 * @throws Problem when it failed over the file or passed a limit, `Interrupted` when something else
 * ended it
 */
export async function runMedia(
  program: 'ffmpeg' | 'ffprobe',
  args: readonly string[],
  { signal, seconds = 3600, most = 64 << 20, onOutput }: MediaRun = {},
): Promise<Buffer> {
  signal?.throwIfAborted();
  const run = runLimited(
    program,
    args,
    mediaLimits(),
    { signal, seconds, most },
    // What it says is kept to its last lines; what is taken as it comes is not kept at all.
    { buffer: { stdout: !onOutput, stderr: false } },
  );
  let said = '';
  let over: unknown = null;
  run.stderr.on('data', (data: Buffer) => {
    said = (said + data.toString()).slice(-STDERR_KEPT);
  });
  if (onOutput)
    run.stdout.on('data', (data: Buffer) => {
      if (over) return;
      try {
        onOutput(data);
      } catch (error) {
        over = error;
        run.kill('SIGKILL');
      }
    });
  const ended = await run;
  signal?.throwIfAborted();
  if (over) throw over as Error;
  if (ended.timedOut) throw problem('media-too-slow');
  if (ended.isMaxBuffer) throw problem('media-too-much');
  if (ended.exitCode === undefined && !ended.signal) throw mediaProblem(String(ended.cause));
  const { exitCode: code = null, signal: by = null } = ended;
  const failure = failureOf({ code, signal: by, said });
  if (failure) throw failure;
  return Buffer.from(ended.stdout ?? []);
}

const outOfMemory = (said: string): Problem | null =>
  /Cannot allocate memory|Out of memory|ENOMEM|bad_alloc|malloc.*failed/i.test(said)
    ? problem('media-memory', bytesInWords(limit('mediaMemory')))
    : null;

/** The last line of what FFmpeg said, without addresses, paths and the full stop. */
function lastLine(said: string): string {
  const line = said.trim().split('\n').pop() ?? '';
  return line
    .replace(/\[[^\]]* @ 0x[0-9a-f]+\]/g, '')
    .replace(/(^|[\s:'"(=])(\/[^\s:'"),]+)+/g, '$1the file')
    .trim()
    .replace(/[.\s]+$/, '')
    .slice(0, 200);
}

/** What FFmpeg said, as a problem for the person who brought the file. */
export function mediaProblem(said: string): Problem {
  const memory = outOfMemory(said);
  if (memory) return memory;
  if (/moov atom not found/i.test(said)) return problem('media-incomplete');
  if (/ENOENT.*(ffmpeg|ffprobe|setpriv|prlimit)|failed to execute|spawn /i.test(said))
    return problem('ffmpeg-missing');
  const system = systemProblem(said);
  if (system) return system;
  if (/No such file or directory/i.test(said)) return problem('file-gone');
  if (
    /Invalid data found|not in whitelist|not on whitelist|Unknown input format|could not find codec/i.test(
      said,
    )
  )
    return problem('not-media');
  return problem('media-unreadable', lastLine(said) || 'FFmpeg gave no reason');
}
