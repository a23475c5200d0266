// Random kills of server, worker and FFmpeg while projects are saved, takes recorded, recordings
// prepared and exported.
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ffmpeg, sleep, until } from './world.mjs';

const VICTIMS = ['web', 'worker', 'ffmpeg'];
const BITS = 8;

/** A short recording whose frames carry their number as a row of black and white cells. */
function numbered(path, seconds) {
  const cells = Array.from(
    { length: BITS },
    (_, bit) =>
      `drawbox=x=${bit * 40}:y=0:w=40:h=40:c=white:t=fill:enable='mod(floor(n/${2 ** bit})\\,2)'`,
  );
  ffmpeg(
    ...['-f', 'lavfi', '-i', `color=c=black:s=640x360:r=30:d=${seconds},${cells.join(',')}`],
    ...['-f', 'lavfi', '-i', `sine=f=440:d=${seconds}`, '-c:v', 'libx264', '-pix_fmt', 'yuv420p'],
    ...['-c:a', 'aac', '-shortest', path],
  );
}

function numbersIn(path) {
  const gray = ffmpeg(
    ...['-i', path, '-vf', `crop=${BITS * 40}:40:0:0,format=gray`, '-fps_mode', 'passthrough'],
    ...['-f', 'rawvideo', '-'],
  );
  const size = BITS * 40 * 40;
  return Array.from({ length: Math.floor(gray.length / size) }, (_, frame) => {
    let number = 0;
    for (let bit = 0; bit < BITS; bit++)
      if (gray[frame * size + 20 * BITS * 40 + bit * 40 + 20] > 128) number += 2 ** bit;
    return number;
  });
}

/** A background as one more step of the history; an old history is forgotten. */
function painted({ project, history }, canvas) {
  const count = history.done.length;
  const steps = count < 300 ? { drop: 0, keep: count } : { drop: count, keep: 0 };
  const forward = { canvas: { value: canvas } };
  const inverse = { canvas: { value: project.canvas } };
  return { ...steps, add: [{ label: 'Background', forward, inverse }], done: steps.keep + 1 };
}

/**
 * Saves again and again until told to stop; afterwards what was acknowledged last must be there, or
 * what was sent after it.
 */
async function saving(world, projectId, going) {
  const color = (n) => `#${n.toString(16).padStart(6, '0')}`;
  let open = (await until(() => world.ask(`/api/projects/${projectId}`))).json;
  let acknowledged = open.revision;
  const sent = new Map([[open.revision, open.project.canvas.background]]);
  for (let n = open.revision + 1; going(); n++) {
    const background = color(n);
    sent.set(acknowledged + 1, background);
    const canvas = { ...open.project.canvas, background };
    // Mostly as what was changed, now and then whole, as a tab does.
    const whole = n % 7 === 0;
    const answer = whole
      ? await world.ask(`/api/projects/${projectId}`, {
          method: 'PUT',
          body: {
            revision: acknowledged,
            project: { ...open.project, canvas },
            history: { done: [], undone: [] },
          },
          seconds: 20,
        })
      : await world.ask(`/api/projects/${projectId}/changes`, {
          method: 'POST',
          body: {
            base: acknowledged,
            key: `chaos-${acknowledged}-${n}`,
            delta: painted(open, canvas),
          },
          seconds: 20,
        });
    if (answer?.ok) {
      acknowledged = answer.json.revision;
      const done = whole ? [] : [...open.history.done, {}];
      open = { ...open, project: { ...open.project, canvas }, history: { done, undone: [] } };
    } else {
      // Like a tab that comes back: what is stored is where it goes on.
      const now = await until(() => world.ask(`/api/projects/${projectId}`));
      if (!now?.ok) return `the project can’t be opened: ${now?.text}`;
      if (now.json.revision < acknowledged) return `revision ${acknowledged} was lost`;
      if (sent.get(now.json.revision) !== now.json.project.canvas.background)
        return `revision ${now.json.revision} is not what was saved`;
      open = now.json;
      acknowledged = now.json.revision;
    }
  }
  const last = await until(() => world.ask(`/api/projects/${projectId}`));
  if (!last?.ok) return `the project can’t be opened: ${last?.text}`;
  const { revision, project } = last.json;
  if (revision < acknowledged) return `revision ${acknowledged} was lost`;
  return sent.get(revision) === project.canvas.background
    ? null
    : 'the document is not what was saved';
}

/**
 * Records a sound piece by piece, closes and keeps the take; every acknowledged byte must be in the
 * footage.
 */
async function taking(world, projectId, round, random) {
  const id = `chaos-take-${String(round).padStart(6, '0')}`;
  const track = {
    ...{ name: 'voice', type: 'audio', label: 'chaos', width: 0, height: 0, frameRate: 0 },
    ...{ sampleRate: 48000, channels: 1 },
  };
  const setup = {
    ...{ tracks: [track], area: null, gain: 0, hold: null, layout: 'corner' },
    camera: { mirror: false, brightness: 0, contrast: 1, area: null },
  };
  const send = (path, method, more) =>
    until(async () => {
      const answer = await world.ask(path, { method, ...more });
      return answer && answer.status < 500 ? answer : null;
    });
  const begun = await send(`/api/projects/${projectId}/takes`, 'POST', {
    body: { id, stepId: null, kind: 'voice', setup },
  });
  if (!begun?.ok) return `the take was not begun: ${begun?.text}`;
  const bytes = Buffer.from(
    Int16Array.from({ length: 96_000 }, () => Math.floor(random() * 20_000) - 10_000).buffer,
  );
  let offset = 0;
  let acknowledged = 0;
  while (offset < bytes.length) {
    const piece = bytes.subarray(offset, offset + 24_000);
    const answer = await world.ask(`/api/takes/${id}/tracks/voice`, {
      method: 'PATCH',
      bytes: piece,
      headers: { 'upload-offset': String(offset) },
      seconds: 20,
    });
    if (answer?.ok) {
      acknowledged = Math.max(acknowledged, answer.json.size);
      offset = answer.json.size;
    } else {
      const state = await until(async () => (await world.ask(`/api/takes/${id}`))?.json);
      if ((state?.sizes?.voice ?? 0) < acknowledged)
        return 'acknowledged bytes of a take were lost';
      offset = state.sizes.voice;
    }
    await sleep(60);
  }
  const closed = await send(`/api/takes/${id}/close`, 'POST', { body: { reason: 'stopped' } });
  if (!closed?.ok) return `the take could not be closed: ${closed?.text}`;
  const finished = await until(async () => {
    const take = (await world.ask(`/api/takes/${id}`))?.json;
    return take && take.status !== 'closing' ? take : null;
  });
  if (finished?.status !== 'stopped') return `the take is ${finished?.status ?? 'never finished'}`;
  const kept = await send(`/api/takes/${id}/keep`, 'POST', {});
  if (!kept?.ok) return `the take could not be kept: ${kept?.text}`;
  const [made] = kept.json.tracks;
  const ready = await world.prepared(projectId, made.footageId);
  if (ready?.status !== 'ready')
    return `the take was not prepared: ${ready?.error ?? 'never ended'}`;
  const heard = await until(() =>
    fetch(`${world.base}/api/takes/${id}/tracks/voice`).then(
      async (r) => (r.ok ? Buffer.from(await r.arrayBuffer()) : null),
      () => null,
    ),
  );
  return heard?.subarray(44).equals(bytes) ? null : 'the take is not what was recorded';
}

/** Brings a recording; it must be prepared well, whatever was killed meanwhile. */
async function bringing(world, projectId, bytes) {
  const brought = await world.upload(projectId, 'recording.mp4', bytes, 'screen');
  if (brought.refused) return { fault: `good footage was refused: ${brought.refused}` };
  // The answer did not get through: it is there, or can be brought again.
  if (brought.unsure) return {};
  const ready = await world.prepared(projectId, brought.footageId);
  if (ready?.status !== 'ready')
    return { fault: `good footage failed: ${ready?.error ?? 'never ended'}` };
  const proxy = await until(() =>
    fetch(`${world.base}/api/footage/${brought.footageId}/proxy`).then(
      async (r) => (r.ok ? Buffer.from(await r.arrayBuffer()) : null),
      () => null,
    ),
  );
  const path = join(world.folder, `proxy-${brought.footageId}.mp4`);
  writeFileSync(path, proxy);
  return { fault: checkNumbers(path), footageId: brought.footageId, facts: ready.facts };
}

function checkNumbers(path) {
  const numbers = numbersIn(path);
  const wrong = numbers.findIndex((n, i) => n !== i);
  return numbers.length && wrong < 0 ? null : `picture ${wrong} of ${numbers.length} is wrong`;
}

/** Exports the recording; each of its pictures must be there once and in order. */
async function exporting(world, projectId) {
  const settings = { width: 640, height: 360, frameRate: { num: 30, den: 1 }, quality: 'good' };
  const asked = await until(async () => {
    const answer = await world.ask(`/api/projects/${projectId}/exports`, {
      method: 'POST',
      body: { ...settings, range: null },
    });
    return answer && answer.status < 500 ? answer : null;
  });
  if (!asked?.ok) return `the export was refused: ${asked?.text}`;
  const { exportId } = asked.json;
  const ended = await until(async () => {
    const list = (await world.ask(`/api/projects/${projectId}/exports`))?.json;
    const found = list?.find((e) => e.id === exportId);
    return found && ['done', 'failed', 'cancelled'].includes(found.status) ? found : null;
  }, 150);
  if (ended?.status !== 'done')
    return `an export ended as ${ended?.status ?? 'nothing'}: ${ended?.message}`;
  const file = await until(() =>
    fetch(`${world.base}/api/exports/${exportId}/video`).then(
      async (r) => (r.ok ? Buffer.from(await r.arrayBuffer()) : null),
      () => null,
    ),
  );
  const path = join(world.folder, 'export.mp4');
  writeFileSync(path, file);
  await until(() => world.ask(`/api/exports/${exportId}`, { method: 'DELETE' }));
  return checkNumbers(path);
}

/** Puts a recording on the screen lane of a project. */
async function place(world, projectId, footageId, facts) {
  const { json } = await until(() => world.ask(`/api/projects/${projectId}`));
  const clip = {
    ...{
      id: 'clip',
      footageId,
      start: 0,
      duration: facts.duration,
      source: 0,
      link: null,
      speed: 1,
    },
    ...{ gain: 0, muted: false, fadeIn: 0, fadeOut: 0, envelope: [], transitionIn: null },
    ...{ transitionOut: null, group: null },
  };
  const lanes = json.project.lanes.map((lane) =>
    lane.kind === 'screen' ? { ...lane, clips: [clip] } : lane,
  );
  const saved = await world.ask(`/api/projects/${projectId}`, {
    method: 'PUT',
    body: { revision: json.revision, project: { ...json.project, lanes }, history: json.history },
  });
  if (!saved?.ok) throw new Error(`The clip was not placed: ${saved?.text}`);
}

/**
 * Kills so often, each time while all kinds of work go on, and holds what was acknowledged against
 * what is there.
 *
 * @returns kills by victim, and a sentence for each thing that was lost, corrupt or stuck
 */
export async function runKills(world, rounds, random, say) {
  const recording = join(world.folder, 'numbered.mp4');
  numbered(recording, 5);
  const bytes = readFileSync(recording);
  const saves = await world.newProject('Saves');
  const takes = await world.newProject('Takes');
  const ingest = await world.newProject('Ingest');
  const exports = await world.newProject('Exports');
  const first = await bringing(world, exports, bytes);
  await place(world, exports, first.footageId, first.facts);
  const killed = { web: 0, worker: 0, ffmpeg: 0 };
  const faults = [];
  for (let round = 1; round <= rounds; round++) {
    let going = true;
    const work = {
      saving: saving(world, saves, () => going),
      taking: taking(world, takes, round, random),
      ingest: bringing(world, ingest, bytes).then(({ fault }) => fault ?? null),
      exporting: exporting(world, exports),
    };
    await sleep(200 + random() * 3500);
    const victim = VICTIMS[Math.floor(random() * VICTIMS.length)];
    const [pid] =
      (await until(() => {
        const found = world.processes()[victim];
        return found.length ? found : null;
      }, 8)) ?? [];
    if (pid) {
      try {
        process.kill(pid, 'SIGKILL');
        killed[victim]++;
      } catch {
        // It ended by itself just then.
      }
    }
    await sleep(300);
    going = false;
    for (const [kind, promise] of Object.entries(work)) {
      const fault = await promise.catch((error) => String(error));
      if (fault) faults.push(`round ${round}, ${victim} killed, ${kind}: ${fault}`);
    }
    if (round % 10 === 0) say(`${round} rounds, ${faults.length} faults`);
    for (const fault of faults.slice(-4)) if (fault.startsWith(`round ${round},`)) say(fault);
  }
  const stuck = await until(async () => {
    const states = await Promise.all(
      [saves, takes, ingest, exports].map((id) => world.ask(`/api/projects/${id}/footage`)),
    );
    return states.every((s) => s?.json?.every((f) => f.status !== 'waiting')) || null;
  }, 120);
  if (!stuck) faults.push('a recording is never prepared');
  return { killed, faults };
}
