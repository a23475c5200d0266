// Measures recording, and export speed as ratios within one run.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { root } from './lib.mjs';

if (!existsSync('node_modules/esbuild')) {
  console.error('Vistum is not set up yet. Run `npm run demo` once; it installs what is missing.');
  process.exit(1);
}
const { buildKernels, bundleNode } = await import('./bundle.mjs');
await buildKernels();
await bundleNode({ bench: 'src/server/bench/main.ts' });
const { buildAll } = await import('./build.mjs');
await buildAll();
const { benchRecording } = await import('./bench-record.mjs');
await benchRecording();
process.exit(spawnSync(process.execPath, ['dist/bench.mjs'], { stdio: 'inherit', env: { ...process.env, VISTUM_ROOT: root } }).status ?? 1);
