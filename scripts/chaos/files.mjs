// Mutated files: each must end, within its limits, prepared or with a sentence, and nothing may
// crash over it.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ffmpeg, median, sleep, until } from './world.mjs';

const PICTURE = ['-f', 'lavfi', '-i', 'testsrc=s=160x120:r=15:d=1'];
const PLANAR = ['-pix_fmt', 'yuv420p'];
const SOUND = ['-f', 'lavfi', '-i', 'sine=f=440:d=1'];
const SVG =
  '<svg xmlns="http://www.w3.org/2000/svg" width="200" height="100"><rect width="50" height="40" fill="#0e6b63"/><path d="M0 0L200 100" stroke="#c2412d"/></svg>';

const KINDS = {
  'a.mp4': [...PICTURE, ...SOUND, ...PLANAR, '-shortest', '-c:v', 'libx264'],
  'b.mkv': [...PICTURE, ...PLANAR, '-c:v', 'ffv1'],
  'c.webm': [...PICTURE, ...PLANAR, '-c:v', 'libvpx'],
  'd.mov': [...PICTURE, ...PLANAR, '-c:v', 'mpeg4'],
  'e.avi': [...PICTURE, ...PLANAR, '-c:v', 'mpeg4', '-bf', '2'],
  'f.ogg': [...SOUND, '-c:a', 'libvorbis'],
  'g.wav': SOUND,
  'h.mp3': SOUND,
  'i.flac': SOUND,
  'j.m4a': SOUND,
  'k.png': [...PICTURE, '-frames:v', '1'],
  'l.jpg': [...PICTURE, '-pix_fmt', 'yuvj420p', '-frames:v', '1'],
  'm.webp': [...PICTURE, ...PLANAR, '-frames:v', '1'],
};

/** Whole files of every kind that is read. */
function wholeFiles(folder) {
  const files = Object.entries(KINDS).map(([name, args]) => {
    const path = join(folder, name);
    ffmpeg(...args, path);
    return { name, bytes: readFileSync(path) };
  });
  return [...files, { name: 'n.svg', bytes: Buffer.from(SVG) }];
}

/**
 * A copy with bytes flipped, runs removed, doubled or filled; heads, where lengths and kinds stand,
 * most of all.
 */
function mutate(bytes, random) {
  let copy = Buffer.from(bytes);
  const somewhere = () => {
    const most = random() < 0.6 ? Math.min(copy.length, 512) : copy.length;
    return Math.floor(random() * most);
  };
  const count = 1 + Math.floor(random() * 6);
  for (let i = 0; i < count && copy.length > 8; i++) {
    const at = somewhere();
    const length = 1 + Math.floor(random() * Math.min(64, copy.length - at));
    switch (Math.floor(random() * 6)) {
      case 0:
        copy[at] = Math.floor(random() * 256);
        break;
      case 1:
        copy.fill(random() < 0.5 ? 0 : 255, at, at + length);
        break;
      case 2:
        copy = Buffer.concat([copy.subarray(0, at), copy.subarray(at + length)]);
        break;
      case 3:
        copy = Buffer.concat([copy.subarray(0, at + length), copy.subarray(at)]);
        break;
      case 4:
        copy = copy.subarray(0, Math.max(4, at));
        break;
      default:
        for (let k = 0; k < length; k++) copy[at + k] = Math.floor(random() * 256);
    }
  }
  return copy;
}

/**
 * Brings so many mutated files.
 *
 * @returns what became of them, the longest time and the most memory one took, and what should not
 * have been
 */
export async function runFiles(world, count, random, say) {
  const whole = wholeFiles(world.folder);
  const projects = [];
  for (const name of ['One', 'Two', 'Three'])
    projects.push(await world.newProject(`Files ${name}`));
  const before = world.processes();
  const faults = [];
  const seconds = [];
  let ready = 0;
  let refused = 0;
  let atUpload = 0;
  let memory = 0;
  let measuring = true;
  const measure = (async () => {
    while (measuring) {
      memory = Math.max(memory, world.readersMemory());
      await sleep(50);
    }
  })();
  let next = 0;
  const bringOne = async (projectId) => {
    while (next < count) {
      const n = next++;
      const { name, bytes } = whole[n % whole.length];
      const mutated = mutate(bytes, random);
      const began = Date.now();
      const brought = await world.upload(projectId, name, mutated, '', 1 << 20);
      if (brought.refused) {
        atUpload++;
        if (!/\.\s*$/.test(brought.refused)) faults.push(`${n} ${name}: ${brought.refused}`);
        continue;
      }
      const ended = await world.prepared(projectId, brought.footageId, 400);
      seconds.push((Date.now() - began) / 1000);
      if (!ended) faults.push(`${n} ${name}: never ended`);
      else if (ended.status === 'ready') ready++;
      else {
        refused++;
        // A sentence may begin with the file's name.
        if (!/^\S.*\.$/s.test(ended.error ?? '') || /unexpected/.test(ended.error))
          faults.push(`${n} ${name}: ${ended.error}`);
      }
      if ((n + 1) % 100 === 0) say(`${n + 1} files, ${faults.length} faults`);
    }
  };
  await Promise.all(projects.map(bringOne));
  measuring = false;
  await measure;
  const after = await until(() => {
    const now = world.processes();
    return now.worker.length ? now : null;
  }, 10);
  const crashes = ['web', 'worker'].filter((kind) => after?.[kind][0] !== before[kind][0]);
  for (const kind of crashes) faults.push(`the ${kind} process crashed`);
  return {
    ...{ ready, refused, atUpload, faults, memory },
    longest: Math.max(...seconds),
    usual: median(seconds),
  };
}
