// Measures edits, a long project in the interface, recording, and the picture engine as ratios
// within one run: `npm run bench [framing] [pointer] [follow] [covers] [private] [edits] [long]
// [recording] [sharpness] [crisp] [key] [match] [matte] [layouts] [growth] [preview] [export]
// [noise]`. `VISTUM_BENCH_SCENE` chooses one scene of `export` (demo, view, worst),
// `VISTUM_BENCH_ROUNDS` how often each way is taken.
import { spawnSync } from 'node:child_process';
import { bootstrap } from './bootstrap.mjs';
import { root } from './lib.mjs';

// Parts of it drive the browser.
await bootstrap({ tests: true });
const { buildKernels, buildNode, bundleNode } = await import('./bundle.mjs');
await buildKernels();
await buildNode();
await bundleNode({
  ...{ bench: 'bench/main.ts', 'bench-edits': 'bench/edits.ts' },
  'bench-long-project': 'bench/long-project.ts',
});
const { buildAll } = await import('./build.mjs');
await buildAll();
// What is named on the command line is measured, or all of it.
const wanted = process.argv.slice(2);
const asked = (part) => !wanted.length || wanted.includes(part);
const node = (file, parts = []) =>
  spawnSync(process.execPath, [file, ...parts], {
    stdio: 'inherit',
    env: { ...process.env, VISTUM_ROOT: root },
  }).status ?? 1;
if (asked('edits') && node('dist/bench-edits.mjs')) process.exit(1);
if (asked('long')) await (await import('./bench-long.mjs')).benchLong();
const { benchRecording } = await import('./bench-record.mjs');
if (asked('recording')) await benchRecording();
if (asked('preview')) await (await import('./bench-preview.mjs')).benchPreview();
const engine = [
  ...[
    'framing',
    'pointer',
    'follow',
    'covers',
    'private',
    'sharpness',
    'crisp',
    'key',
    'match',
    'matte',
    'layouts',
  ],
  ...['growth', 'export', 'noise'],
].filter(asked);
if (engine.length) process.exit(node('dist/bench.mjs', engine));
