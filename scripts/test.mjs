// Installs what is missing, then checks and tests everything.
import { rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { bootstrap } from './bootstrap.mjs';
import { run, runTogether, say } from './lib.mjs';

await bootstrap({ tests: true });
const { buildPartsOnce } = await import('./build.mjs');
const step = (title, ...command) => {
  say(title);
  run(command[0], command.slice(1), { env: { NEXT_TELEMETRY_DISABLED: '1' } });
};
step('Route types', 'npx', 'next', 'typegen');
say('Formatting, types, lint, dependency rules, unused code');
await runTogether(
  [
    ['npx', 'oxlint'],
    ['npx', 'tsc', '--noEmit'],
    ['npx', 'oxfmt', '--check'],
    ['npx', 'depcruise', '--config', '.dependency-cruiser.cjs', 'src', 'demo', 'bench', 'e2e'],
    ['npx', 'knip'],
  ],
  { env: { NEXT_TELEMETRY_DISABLED: '1' } },
);
await buildPartsOnce();
step('Unit tests', 'npx', 'jest');
const data = join(tmpdir(), `vistum-e2e-${process.pid}`);
// The attack builds the web application before it begins; the demo needs none.
say(
  'Seeding the demo for the browser tests; beside it, the web application, random kills and broken files',
);
await runTogether(
  [
    [process.execPath, 'scripts/vistum.mjs', 'demo', '--json'],
    [process.execPath, 'scripts/chaos.mjs', '--short'],
  ],
  { env: { VISTUM_DATA: data } },
);
say('Browser tests');
run('npx', ['playwright', 'test'], { env: { VISTUM_TEST_DATA: data } });
rmSync(data, { recursive: true, force: true });
say('All checks passed');
