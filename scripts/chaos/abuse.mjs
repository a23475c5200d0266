// The worst requests and files at once, while somebody else works: how long do they wait?
import { connect } from 'node:net';
import { Worker } from 'node:worker_threads';
import { ffmpeg, median, sleep, until } from './world.mjs';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';

const MB = 1 << 20;

/** A track of so many megabytes, as a long recording at a high rate has. */
export function largeTrack(megabytes) {
  const parts = [
    '{"format":"vistum-pointer","version":1,"width":640,"height":360,"events":[],"samples":[',
  ];
  let size = 0;
  for (let i = 0; size < megabytes * MB; i++) {
    const x = 320 + 300 * Math.sin(i / 97);
    const y = 180 + 150 * Math.cos(i / 61);
    const sample = `${i ? ',' : ''}[${i * 8},${x.toFixed(3)},${y.toFixed(3)}]`;
    size += sample.length;
    parts.push(sample);
  }
  parts.push(']}');
  return Buffer.from(parts.join(''));
}

/** A request of so many bytes that the answer does not wait for; answers the status. */
function pour(world, path, megabytes, method = 'POST') {
  return new Promise((resolve) => {
    const socket = connect(world.port, '127.0.0.1');
    let said = '';
    const end = () => {
      socket.destroy();
      resolve(Number(/^HTTP\/1\.1 (\d+)/.exec(said)?.[1] ?? 0));
    };
    socket.on('error', end);
    socket.on('close', end);
    socket.on('data', (data) => {
      said += data;
      if (said.includes('\r\n\r\n')) setTimeout(end, 50);
    });
    socket.write(
      `${method} ${path} HTTP/1.1\r\nHost: 127.0.0.1:${world.port}\r\nContent-Type: application/json\r\nTransfer-Encoding: chunked\r\n\r\n`,
    );
    const piece = Buffer.concat([
      Buffer.from('100000\r\n'),
      Buffer.alloc(MB, 0x20),
      Buffer.from('\r\n'),
    ]);
    let left = megabytes;
    const more = () => {
      while (left-- > 0) if (!socket.write(piece)) return void socket.once('drain', more);
    };
    more();
    setTimeout(end, 60_000).unref();
  });
}

const STROKES = () => {
  const path = (i) =>
    `<path d="M${i % 2000} 0C500 ${i % 1999} 1500 ${i % 1777} ${i % 1888} 2000" stroke="red" stroke-width="9" fill="none" stroke-dasharray="3 2"/>`;
  return Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" width="2000" height="2000">${Array.from({ length: 150_000 }, (_, i) => path(i)).join('')}</svg>`,
  );
};

function hostileFiles(folder) {
  const make = (name, ...args) => {
    ffmpeg(...args, join(folder, name));
    return readFileSync(join(folder, name));
  };
  const sparse = ['-f', 'lavfi', '-i', 'testsrc=s=320x240:r=30', '-frames:v', '3'];
  const tenMinutes = join(folder, 'ten-minutes.ogg');
  ffmpeg(
    ...['-f', 'lavfi', '-i', 'anullsrc=r=8000:cl=mono', '-t', '600', '-c:a', 'libopus'],
    ...['-b:a', '6k', tenMinutes],
  );
  return {
    'sparse.mkv': make(
      'sparse.mkv',
      ...[...sparse, '-vf', 'setpts=N*18000/TB', '-fps_mode', 'passthrough'],
      ...['-c:v', 'libx264', '-pix_fmt', 'yuv420p'],
    ),
    'silent.ogg': make(
      'silent.ogg',
      ...['-stream_loop', '59', '-i', tenMinutes, '-c', 'copy', '-f', 'ogg'],
    ),
    'strokes.svg': STROKES(),
  };
}

/**
 * Does all of it at once and asks meanwhile for what another user needs.
 *
 * @returns how long those requests took, and what each abuse was answered
 */
export async function runAbuse(world, say) {
  const victim = await world.newProject('Somebody’s work');
  const mine = await world.newProject('Abuse');
  const other = await world.newProject('Beside it');
  const files = hostileFiles(world.folder);
  const small = join(world.folder, 'small.mp4');
  ffmpeg('-f', 'lavfi', '-i', 'testsrc=s=640x360:r=30:d=1', '-pix_fmt', 'yuv420p', small);
  say('hostile files are made');
  const body = (value) => ({
    method: 'POST',
    bytes: Buffer.from(JSON.stringify(value)),
    headers: { 'content-type': 'application/json' },
  });
  const manyKeys = body(
    Object.fromEntries(Array.from({ length: 300_000 }, (_, i) => [`key${i}`, i])),
  );
  const manyIds = body({ footageIds: Array.from({ length: 200_000 }, (_, i) => `id-${i}`) });
  const deep = { method: 'POST', bytes: Buffer.from(`${'['.repeat(1e5)}${']'.repeat(1e5)}`) };
  const open = (await until(() => world.ask(`/api/projects/${mine}`))).json;
  const faulty = {
    method: 'PUT',
    bytes: Buffer.from(
      JSON.stringify({
        revision: open.revision,
        project: {
          ...open.project,
          callouts: Array.from({ length: 300_000 }, (_, i) => ({ id: i, wrong: true })),
        },
        history: { done: [], undone: [] },
      }),
    ),
    headers: { 'content-type': 'application/json' },
  };
  const streams = new AbortController();
  const answers = {};
  const note = (name, promise) =>
    promise.then(
      (answer) => (answers[name] = typeof answer === 'number' ? answer : (answer?.status ?? 0)),
    );
  const watcher = new Worker(new URL('watcher.mjs', import.meta.url), {
    workerData: {
      base: world.base,
      paths: ['/api/projects', `/api/projects/${victim}`, `/api/projects/${victim}/footage`],
    },
  });
  const watched = new Promise((resolve) => watcher.once('message', resolve));
  await sleep(500);
  for (let i = 0; i < 200; i++)
    void fetch(`${world.base}/api/projects/${victim}/events`, { signal: streams.signal }).catch(
      () => {},
    );
  const requests = [
    note('300,000 unknown keys', world.ask('/api/projects', manyKeys)),
    note('200,000 ids', world.ask(`/api/projects/${mine}/footage/bring`, manyIds)),
    note('nesting of 100,000', world.ask('/api/projects', deep)),
    note('a document with 300,000 faults', world.ask(`/api/projects/${mine}`, faulty)),
    note('a body of 200 MB', pour(world, '/api/projects', 200)),
    note('a save of 200 MB', pour(world, `/api/projects/${mine}`, 200, 'PUT')),
  ];
  const brought = Object.entries(files).map(([name, bytes]) => world.upload(mine, name, bytes));
  // Somebody else's recording is prepared although all of these are in the way.
  const began = Date.now();
  const fair = world
    .upload(other, 'small.mp4', readFileSync(small))
    .then(({ footageId }) => world.prepared(other, footageId, 120))
    .then((found) => (found?.status === 'ready' ? (Date.now() - began) / 1000 : Infinity));
  await Promise.all([...requests, ...brought]);
  const beside = await fair;
  const endedOf = (name) =>
    until(async () => {
      const all = (await world.ask(`/api/projects/${mine}/footage`))?.json;
      const found = all?.find((f) => f.name === name);
      return found && found.status !== 'waiting' ? found : null;
    }, 900);
  await Promise.all(['strokes.svg', 'sparse.mkv'].map(endedOf));
  watcher.postMessage('stop');
  const waits = await watched;
  streams.abort();
  say(
    `the worst is over: ${waits.length} requests, median ${median(waits).toFixed(0)} ms, ` +
      `worst ${Math.max(...waits).toFixed(0)} ms`,
  );
  const list = await Promise.all(Object.keys(files).map(endedOf));
  for (const found of list) if (found) answers[found.name] = found.error ?? found.status;
  return {
    answers,
    beside,
    requests: waits.length,
    median: median(waits),
    worst: Math.max(...waits),
    ended: list.every(Boolean),
  };
}

/**
 * A pointer track of 42 MB: how long until it is attached, and how long the project then takes to
 * open.
 */
export async function runTrack(world, megabytes = 42) {
  // It takes seconds in which nothing is heard here of connections that the server closes meanwhile:
  // what is sent right after would go nowhere.
  const bytes = largeTrack(megabytes);
  const projectId = await world.newProject('A long track');
  const path = join(world.folder, 'tracked.mp4');
  ffmpeg('-f', 'lavfi', '-i', 'testsrc=s=640x360:r=30:d=2', '-pix_fmt', 'yuv420p', path);
  const { footageId } = await world.upload(projectId, 'tracked.mp4', readFileSync(path), 'screen');
  await world.prepared(projectId, footageId);
  const began = performance.now();
  const sent = await world.ask(`/api/footage/${footageId}/pointer`, { method: 'POST', bytes });
  let slowest = 0;
  const attached = await until(async () => {
    const asked = performance.now();
    const found = await world.footage(projectId, footageId);
    slowest = Math.max(slowest, performance.now() - asked);
    return found?.hasPointer ? (performance.now() - began) / 1000 : null;
  }, 120);
  const asked = performance.now();
  await world.ask(`/api/projects/${projectId}`);
  const opened = (performance.now() - asked) / 1000;
  const loading = performance.now();
  const track = await world.ask(`/api/footage/${footageId}/pointer`);
  return {
    ...{ status: sent?.status, attached, opened, slowest },
    loaded: (performance.now() - loading) / 1000,
    megabytes: (track?.text.length ?? 0) / MB,
    samples: track?.json?.samples?.length ?? 0,
  };
}
