// Makes the demo recordings anew (they are committed; only needed after a change of the generator).
import { build } from 'esbuild';
import { spawnSync } from 'node:child_process';

await build({
  entryPoints: ['demo/generator/make.ts'],
  outfile: 'dist/make-demo.mjs',
  bundle: true,
  platform: 'node',
  format: 'esm',
  packages: 'external',
  logLevel: 'warning',
});
process.exit(
  spawnSync(process.execPath, ['dist/make-demo.mjs', ...process.argv.slice(2)], {
    stdio: 'inherit',
  }).status ?? 1,
);
