// A Vistum of its own to be attacked: started, looked into, and asked over HTTP as a browser asks.
import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

export const sleep = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

export async function until(what, seconds = 60) {
  for (const end = Date.now() + seconds * 1000; ;) {
    const found = await what();
    if (found) return found;
    if (Date.now() > end) return null;
    await sleep(100);
  }
}

/** Runs FFmpeg for the attack's own needs. */
export function ffmpeg(...args) {
  const { status, stdout, stderr } = spawnSync('ffmpeg', ['-v', 'error', '-y', ...args], {
    maxBuffer: 1 << 30,
  });
  if (status !== 0) throw new Error(`ffmpeg ${args.join(' ')}: ${String(stderr)}`);
  return stdout;
}

const childrenOf = (pid) => {
  try {
    return readdirSync(`/proc/${pid}/task`).flatMap((task) =>
      readFileSync(`/proc/${pid}/task/${task}/children`, 'utf8')
        .split(' ')
        .filter(Boolean)
        .map(Number),
    );
  } catch {
    return [];
  }
};
const below = (pid) => childrenOf(pid).flatMap((child) => [child, ...below(child)]);
const commandOf = (pid) => {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'latin1').replaceAll('\0', ' ');
  } catch {
    return '';
  }
};
const memoryOf = (pid) => {
  try {
    return (
      Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) * 1024
    );
  } catch {
    return 0;
  }
};

export class World {
  constructor(port, env = {}) {
    this.port = port;
    this.base = `http://127.0.0.1:${port}`;
    this.folder = mkdtempSync(join(tmpdir(), 'vistum-chaos-'));
    this.data = join(this.folder, 'data');
    this.env = { ...process.env, VISTUM_DATA: this.data, PORT: String(port), ...env };
  }

  async start() {
    this.starter = spawn(process.execPath, ['scripts/start.mjs'], {
      env: this.env,
      stdio: 'ignore',
    });
    if (!(await until(() => this.answers(), 240))) throw new Error('Vistum did not start');
  }

  async stop() {
    if (this.starter.exitCode === null) {
      this.starter.kill('SIGTERM');
      await new Promise((resolve) => this.starter.on('exit', resolve));
    }
    rmSync(this.folder, { recursive: true, force: true });
  }

  answers() {
    return fetch(`${this.base}/api/projects`).then(
      (r) => r.ok,
      () => false,
    );
  }

  /** Process ids of the web server, the worker, FFmpegs and tools, as they are now. */
  processes() {
    const all = below(this.starter.pid).map((pid) => ({ pid, command: commandOf(pid) }));
    const of = (pattern) =>
      all.filter(({ command }) => pattern.test(command)).map(({ pid }) => pid);
    return {
      web: of(/dist\/web\.mjs/),
      worker: of(/dist\/worker\.mjs/),
      ffmpeg: of(/^ffmpeg |^ffprobe /),
      tool: of(/dist\/tool\.mjs/),
    };
  }

  /** Most memory, in bytes, that any of the programs that read files has had. */
  readersMemory() {
    const { ffmpeg: readers, tool } = this.processes();
    return Math.max(0, ...[...readers, ...tool].map(memoryOf));
  }

  /** A request; null when there was no answer at all. */
  async ask(path, { method = 'GET', body, bytes, headers = {}, seconds = 120 } = {}) {
    const response = await fetch(`${this.base}${path}`, {
      method,
      headers: {
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        ...headers,
      },
      body: bytes ?? (body === undefined ? undefined : JSON.stringify(body)),
      signal: AbortSignal.timeout(seconds * 1000),
    }).catch(() => null);
    if (!response) return null;
    const text = await response.text().catch(() => null);
    if (text === null) return null;
    let json = null;
    try {
      json = text ? JSON.parse(text) : null;
    } catch {
      json = null;
    }
    return { status: response.status, ok: response.ok, headers: response.headers, text, json };
  }

  async newProject(name) {
    const made = await until(
      async () =>
        (
          await this.ask('/api/projects', {
            method: 'POST',
            body: { name, width: 640, height: 360, frameRate: { num: 30, den: 1 } },
          })
        )?.json,
    );
    return made.id;
  }

  /**
   * Brings a file as the interface does: an upload that resumes. Answers footage's id once it was
   * acknowledged.
   */
  async upload(projectId, name, bytes, role = '', step = 1 << 18) {
    const encoded = (text) => Buffer.from(text).toString('base64');
    const metadata = `filename ${encoded(name)},project ${encoded(projectId)}${role ? `,role ${encoded(role)}` : ''}`;
    const protocol = { 'tus-resumable': '1.0.0' };
    const made = await until(async () => {
      const answer = await this.ask('/api/uploads', {
        method: 'POST',
        headers: {
          ...protocol,
          'upload-length': String(bytes.length),
          'upload-metadata': metadata,
        },
      });
      return answer && (answer.status === 201 || answer.status < 500) ? answer : null;
    });
    if (made?.status !== 201) return { refused: made?.text ?? 'no answer' };
    const place = new URL(made.headers.get('location'), this.base).pathname;
    for (;;) {
      const head = await until(() => this.ask(place, { method: 'HEAD', headers: protocol }));
      // It was taken over before the answer got through.
      if (head.status >= 400) return { unsure: true };
      const offset = Number(head.headers.get('upload-offset'));
      const piece = bytes.subarray(offset, offset + step);
      const sent = await this.ask(place, {
        method: 'PATCH',
        bytes: piece,
        headers: {
          ...protocol,
          'upload-offset': String(offset),
          'content-type': 'application/offset+octet-stream',
        },
      });
      const footageId = sent?.headers.get('x-vistum-footage');
      if (footageId) return { footageId };
      if (sent && sent.status >= 400 && sent.status < 500 && sent.status !== 409)
        return { refused: sent.text };
      if (sent?.ok && offset + piece.length >= bytes.length) return { unsure: true };
    }
  }

  async footage(projectId, id) {
    const list = await this.ask(`/api/projects/${projectId}/footage`);
    // A server that is just going down or coming up answers with a problem.
    return (list?.ok && list.json?.find((f) => f.id === id)) || null;
  }

  /** Footage once its preparation has ended, one way or the other; null when it never did. */
  prepared(projectId, id, seconds = 120) {
    return until(async () => {
      const found = await this.footage(projectId, id);
      return found && found.status !== 'waiting' ? found : null;
    }, seconds);
  }
}

/** A generator of numbers from 0 to 1 that a run can be repeated with (mulberry32, T. Ettinger). */
export function randomFrom(seed) {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = Math.imul(a ^ (a >>> 15), a | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

export const median = (list) => [...list].sort((a, b) => a - b)[list.length >> 1] ?? 0;
