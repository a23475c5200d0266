// The command line: builds what it needs when the sources changed, then runs it.
import { spawn } from 'node:child_process';
import { existsSync } from 'node:fs';
import { onceFor, PARTS_FROM, partsThere, root } from './lib.mjs';

if (!existsSync('node_modules/esbuild')) {
  console.error('Vistum is not set up yet. Run `npm run demo` once; it installs what is missing.');
  process.exit(1);
}
await onceFor(
  'parts',
  PARTS_FROM,
  async () => (await import('./build.mjs')).buildParts(),
  partsThere,
);
// File names on the command line are meant from where the person is, not from here.
const cwd = process.env.INIT_CWD ?? process.cwd();
const child = spawn(process.execPath, [`${root}/dist/vistum.mjs`, ...process.argv.slice(2)], {
  stdio: 'inherit',
  cwd,
  env: { ...process.env, VISTUM_ROOT: root },
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal));
child.on('exit', (code) => process.exit(code ?? 1));
