// From a fresh clone to the demo project in a browser: installs, builds, seeds, starts.
import { bootstrap } from './bootstrap.mjs';
import { run, say } from './lib.mjs';

await bootstrap();
const { buildAll } = await import('./build.mjs');
await buildAll();
say('Seeding the demo project (about a minute at first)');
run(process.execPath, ['scripts/vistum.mjs', 'demo']);
const { start } = await import('./start.mjs');
await start();
say('Open the project "Glaze firing". Ctrl+C stops Vistum.');
