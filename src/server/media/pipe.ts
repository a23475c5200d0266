import { execFileSync, type ChildProcess } from 'node:child_process';
import {
  closeSync,
  constants,
  fstatSync,
  mkdtempSync,
  openSync,
  readSync,
  rmSync,
  writeSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { spawnLimited } from '../processes/limited';
import { notePid } from '../processes/noted';
import { failureOf, mediaLimits } from './process';
import { exitStatusOf } from '../processes/exit-status';
import { Interrupted } from '../processes/interrupted';
import { problem } from '../problem';

/*
 * FFmpeg at one end of a named pipe, raw pictures straight from or into the kernels' memory at the
 * other. Reads and writes block, so this belongs into worker threads. Measured against Node's
 * streams, which hand over 64 KB at a time in buffers of their own, it takes half of the processor
 * time for a picture of 2560x1440.
 */

/** How much of what it said is kept. */
const SAID = 8192;

/** Processes that have been closed and are not gone yet. */
const leaving = new Set<Promise<unknown>>();

/**
 * Settles when all processes that were closed are gone. Their end is noticed by the event loop
 * only, which stands still while pictures are read and written; and those of a thread that ends
 * before would stay in the system's table until the program ends.
 */
export const processesGone = async (): Promise<void> => {
  await Promise.all(leaving);
};

abstract class PipedProcess {
  protected readonly child: ChildProcess;
  protected readonly fd: number;
  /** Settles at the end with the exit code; null when it was killed or never began. */
  protected readonly ended: Promise<number | null>;
  /** What it says goes to a file without a name, which no one has to empty while we wait. */
  private readonly said: number;
  private open = true;

  constructor(end: 'reads' | 'writes', args: readonly string[]) {
    const folder = mkdtempSync(join(tmpdir(), 'vistum-pipe-'));
    const path = join(folder, 'pipe');
    execFileSync('mkfifo', ['-m', '600', path]);
    // Opened for both first: a pipe opened for one only waits for the other end.
    const both = openSync(path, constants.O_RDWR);
    const [reading, writing] = [
      openSync(path, constants.O_RDONLY),
      openSync(path, constants.O_WRONLY),
    ];
    this.said = openSync(join(folder, 'said'), 'w+');
    // Open ends outlive their names: whatever becomes of us, nothing is left behind.
    rmSync(folder, { recursive: true });
    this.fd = end === 'reads' ? writing : reading;
    const theirs = end === 'reads' ? reading : writing;
    // What reads a recording is limited; the encoder works on our own pictures, and takes what it
    // needs.
    this.child = spawnLimited(
      'ffmpeg',
      ['-v', 'error', '-nostdin', ...args],
      end === 'writes' ? mediaLimits() : {},
      { stdio: end === 'reads' ? [theirs, 'ignore', this.said] : ['ignore', theirs, this.said] },
    );
    const forget = notePid(this.child.pid);
    this.ended = new Promise((resolve) => {
      const settle = (code: number | null) => {
        forget();
        resolve(code);
      };
      this.child.on('error', () => settle(null));
      this.child.on('close', settle);
    });
    for (const fd of [both, theirs]) closeSync(fd);
  }

  /** What its end means; null when all went well. Waits for the end, which must have begun. */
  protected failure(): Error | null {
    const { pid } = this.child;
    if (!pid) return problem('ffmpeg-missing');
    const { exitCode, signalCode } = this.child;
    const known = exitCode !== null || signalCode !== null;
    const status = known ? { code: exitCode, signal: signalCode } : exitStatusOf(pid);
    return failureOf({
      code: status?.code ?? null,
      signal: null,
      ...status,
      said: this.lastSaid(),
    });
  }

  private lastSaid(): string {
    const { size } = fstatSync(this.said);
    const text = Buffer.alloc(Math.min(size, SAID));
    readSync(this.said, text, 0, text.length, size - text.length);
    return text.toString();
  }

  protected closePipe(): void {
    if (this.open) closeSync(this.fd);
    this.open = false;
  }

  /** Ends it and clears up; what it has not done so far stays undone. */
  close(): void {
    this.closePipe();
    this.child.kill('SIGKILL');
    closeSync(this.said);
    const gone: Promise<unknown> = this.ended.then(() => leaving.delete(gone));
    leaving.add(gone);
  }
}

/** FFmpeg that writes to us, on its `pipe:1`. */
export class PipeReader extends PipedProcess {
  constructor(args: readonly string[]) {
    super('writes', args);
  }

  /** Fills `into`; false when the process ended before. */
  read(into: Uint8Array): boolean {
    let at = 0;
    while (at < into.length) {
      const got = readSync(this.fd, into, at, into.length - at, null);
      if (!got) return false;
      at += got;
    }
    return true;
  }

  /**
   * Reads up to the end of a line, for what stands before the pictures; false when the process
   * ended before.
   */
  skipLine(): boolean {
    const byte = Buffer.alloc(1);
    while (this.read(byte)) if (byte[0] === 0x0a) return true;
    return false;
  }

  /**
   * To be called when it has ended before it was expected to: a recording may be shorter than it
   * says, but a decoder that somebody ended has not given all there is.
   *
   * @throws Interrupted when it did not end by itself
   */
  checkEnd(): void {
    const failure = this.failure();
    if (failure instanceof Interrupted) throw failure;
  }

  /** The reason for there being nothing to read. */
  whyEmpty(): Error {
    return this.failure() ?? problem('not-media');
  }
}

/** FFmpeg that reads from us, on its `pipe:0`. */
export class PipeWriter extends PipedProcess {
  constructor(args: readonly string[]) {
    super('reads', args);
  }

  /**
   * @throws Problem with the process's reason when it ended early, `Interrupted` when somebody
   * ended it
   */
  write(bytes: Uint8Array): void {
    try {
      for (let at = 0; at < bytes.length;) at += writeSync(this.fd, bytes, at, bytes.length - at);
    } catch (error) {
      throw (error as { code?: string }).code === 'EPIPE' ? this.early() : error;
    }
  }

  /** Tells it that this was all, and waits for its end. */
  async finish(): Promise<void> {
    this.closePipe();
    if ((await this.ended) !== 0) throw this.early();
  }

  private early(): Error {
    return this.failure() ?? problem('encoder-failed', 'it gave no reason');
  }
}
