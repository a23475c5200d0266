// Installs what is missing, then checks and tests everything.
import { rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { bootstrap } from './bootstrap.mjs';
import { run, say } from './lib.mjs';

await bootstrap({ tests: true });
const { buildAll, buildParts } = await import('./build.mjs');
const step = (title, ...command) => {
  say(title);
  run(command[0], command.slice(1), { env: { NEXT_TELEMETRY_DISABLED: '1' } });
};
step('Formatting', 'npx', 'prettier', '--check', '--log-level', 'warn', '.');
step('Route types', 'npx', 'next', 'typegen');
step('Types', 'npx', 'tsc', '--noEmit');
step('Lint', 'npx', 'eslint', '.');
step('Dependency rules', 'npx', 'depcruise', '--config', '.dependency-cruiser.cjs', 'src', 'demo');
step('Unused code', 'npx', 'knip');
say('Kernels, worker and command');
await buildParts();
step('Unit tests', 'npx', 'jest');
await buildAll();
const data = join(tmpdir(), `vistum-e2e-${process.pid}`);
say('Seeding the demo for the browser tests');
run(process.execPath, ['scripts/vistum.mjs', 'demo', '--json'], { env: { VISTUM_DATA: data } });
say('Browser tests');
run('npx', ['playwright', 'test'], { env: { VISTUM_TEST_DATA: data } });
rmSync(data, { recursive: true, force: true });
say('All checks passed');
