// The command line: builds what it needs when the sources changed, then runs it.
import { spawn } from 'node:child_process';
import { existsSync } from 'node:fs';
import { onceFor, root } from './lib.mjs';

if (!existsSync('node_modules/esbuild')) {
  console.error('Vistum is not set up yet. Run `npm run demo` once; it installs what is missing.');
  process.exit(1);
}
await onceFor(
  'parts',
  [
    'src/core',
    'src/kernels',
    'src/compositor',
    'src/server',
    'src/cli',
    'demo/project.ts',
    'docs/schemas',
    'scripts/bundle.mjs',
    'package-lock.json',
  ],
  async () => (await import('./build.mjs')).buildParts(),
  () => existsSync('dist/vistum.mjs') && existsSync('public/kernels.wasm'),
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
