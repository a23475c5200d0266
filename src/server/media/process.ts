import { spawn, type ChildProcess, type SpawnOptions } from 'node:child_process';
import { describeSystemError, Problem } from '../problem';

/** Demuxers that may open a file from outside; playlists, which point at other files, are not among them. */
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

/** A running media process with the end of what it said on stderr. */
export class MediaProcess {
  readonly child: ChildProcess;
  /** Settles at the end: null when all went well, otherwise what it said. */
  readonly ended: Promise<string | null>;
  private said = '';
  private killed = false;

  constructor(
    program: 'ffmpeg' | 'ffprobe',
    args: readonly string[],
    stdio: SpawnOptions['stdio'],
  ) {
    // No shell: file names are passed as they are.
    this.child = spawn(program, [...args], { stdio });
    this.child.stderr?.on('data', (data: Buffer) => {
      this.said = (this.said + data.toString()).slice(-STDERR_KEPT);
    });
    this.ended = new Promise((resolve) => {
      this.child.on('error', (error) => resolve(String(error)));
      this.child.on('close', (code) =>
        resolve(
          code === 0 || this.killed ? null : this.said || `${program} ended with code ${code}`,
        ),
      );
    });
  }

  /** Ends it; what it has done so far does not count. */
  kill(): void {
    this.killed = true;
    this.child.kill('SIGKILL');
  }
}

/** Runs FFmpeg or ffprobe to its end and answers its standard output; a time limit ends it. */
export async function runMedia(
  program: 'ffmpeg' | 'ffprobe',
  args: readonly string[],
  {
    signal,
    seconds = 3600,
    most = 64 << 20,
    onOutput,
  }: {
    signal?: AbortSignal;
    seconds?: number;
    most?: number;
    onOutput?: (text: string) => void;
  } = {},
): Promise<Buffer> {
  const process = new MediaProcess(program, args, ['ignore', 'pipe', 'pipe']);
  const chunks: Buffer[] = [];
  let size = 0;
  let tooMuch = false;
  process.child.stdout!.on('data', (data: Buffer) => {
    if (onOutput) return onOutput(data.toString());
    size += data.length;
    if (size > most) {
      tooMuch = true;
      process.kill();
    } else chunks.push(data);
  });
  let late = false;
  const timer = setTimeout(() => {
    late = true;
    process.kill();
  }, seconds * 1000);
  const abort = () => process.kill();
  signal?.addEventListener('abort', abort);
  const failure = await process.ended;
  clearTimeout(timer);
  signal?.removeEventListener('abort', abort);
  signal?.throwIfAborted();
  if (late || tooMuch)
    throw new Problem(
      422,
      'Reading the file took too long. It may be damaged; try to save it again in the program it came from.',
    );
  if (failure !== null) throw mediaProblem(failure);
  return Buffer.concat(chunks);
}

/** For a file that is something else than its name says. */
export const NOT_MEDIA =
  'This is not a video, sound or picture file that Vistum reads. Bring MP4, MOV, MKV, WebM, AVI, WAV, MP3, M4A, FLAC, OGG, PNG, JPEG or WebP.';

/** What FFmpeg said, as a sentence for the person who brought the file. */
export function mediaProblem(said: string): Problem {
  const system = describeSystemError(said);
  if (system) return new Problem(507, system);
  if (/moov atom not found/i.test(said))
    return new Problem(
      422,
      'The recording is incomplete: its end, with the index, is missing. Copy it again from where it was recorded.',
    );
  if (/ENOENT.*(ffmpeg|ffprobe)|spawn (ffmpeg|ffprobe)/i.test(said))
    return new Problem(
      500,
      'FFmpeg is not installed. Run `npm run demo` once, which installs it, or `apt-get install ffmpeg`.',
    );
  if (/No such file or directory/i.test(said))
    return new Problem(410, 'The file is no longer where it was. Add it again.');
  if (
    /Invalid data found|not in whitelist|not on whitelist|Unknown input format|could not find codec/i.test(
      said,
    )
  )
    return new Problem(422, NOT_MEDIA);
  return new Problem(
    422,
    `The file could not be read: ${said.trim().split('\n').pop()?.slice(0, 200)}`,
  );
}
