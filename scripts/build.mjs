// Builds all there is to build: kernels, worker and command, web application.
import { existsSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
import { onceFor, run, say } from './lib.mjs';

export async function buildParts() {
  const { buildKernels, buildNode, copyFont } = await import('./bundle.mjs');
  copyFont();
  await buildKernels();
  await buildNode();
}

export async function buildAll() {
  const made = await onceFor(
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
    async () => {
      say('Building kernels, worker and command');
      await buildParts();
    },
    () => partsThere(),
  );
  if (!made) say('Kernels, worker and command are up to date');
  const web = await onceFor(
    'web',
    ['src', 'public', 'demo/project.ts', 'next.config.ts', 'postcss.config.mjs', 'package-lock.json', 'docs/schemas', 'tsconfig.json'],
    () => {
      say('Building the web application (about half a minute)');
      run('npx', ['next', 'build'], { env: { NEXT_TELEMETRY_DISABLED: '1' } });
    },
    () => existsSync('.next/BUILD_ID'),
  );
  if (!web) say('The web application is up to date');
}

const partsThere = () =>
  ['public/fonts/picture.woff2', 'public/kernels.wasm', 'dist/worker.mjs', 'dist/vistum.mjs'].every((f) => existsSync(f));

if (import.meta.url === pathToFileURL(process.argv[1]).href) await buildAll();
