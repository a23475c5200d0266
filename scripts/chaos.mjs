// Attacks a Vistum of its own: random kills, mutated files, the worst requests at once, and a very
// long pointer track. `--short` is what the tests run; `--seed N` repeats a run, `--kills N` and
// `--files N` say how many; names of parts run only those.
import { writeFileSync } from 'node:fs';
import { bootstrap } from './bootstrap.mjs';
import { say } from './lib.mjs';
import { runAbuse, runTrack } from './chaos/abuse.mjs';
import { runFiles } from './chaos/files.mjs';
import { runKills } from './chaos/kills.mjs';
import { randomFrom, World } from './chaos/world.mjs';

const args = process.argv.slice(2);
const short = args.includes('--short');
const seed = Number(args[args.indexOf('--seed') + 1]) || (short ? 1 : Date.now() % 1e6);
const named = args.filter((arg) => ['kills', 'files', 'abuse', 'track'].includes(arg));
const runs = (part) => !named.length || named.includes(part);
const usual = short ? { kills: 6, files: 42 } : { kills: 200, files: 1000 };
const count = (part) => Number(args[args.indexOf(`--${part}`) + 1]) || usual[part];

await bootstrap();
say(`Chaos with seed ${seed}`);
const random = randomFrom(seed);
const world = new World(Number(process.env.CHAOS_PORT) || (short ? 4196 : 4195));
await world.start();
const found = { seed };
const faults = [];
try {
  if (runs('kills')) {
    found.kills = await runKills(world, count('kills'), random, say);
    faults.push(...found.kills.faults);
  }
  if (runs('files')) {
    found.files = await runFiles(world, count('files'), random, say);
    faults.push(...found.files.faults);
  }
  if (runs('track')) {
    found.track = await runTrack(world);
    if (!found.track.attached) faults.push('the long track was never attached');
  }
  if (runs('abuse') && !short) {
    found.abuse = await runAbuse(world, say);
    if (!found.abuse.ended) faults.push('a hostile file never ended');
  }
} finally {
  await world.stop();
}
console.log(JSON.stringify(found, null, 2));
const file = args[args.indexOf('--out') + 1];
if (args.includes('--out')) writeFileSync(file, JSON.stringify(found, null, 2));
say(faults.length ? `${faults.length} faults` : 'Nothing lost, nothing corrupt, nothing stuck');
process.exitCode = faults.length ? 1 : 0;
