// Builds all there is to build: kernels, worker and command, web application.
import { existsSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
import { onceFor, PARTS_FROM, partsThere, run, say } from './lib.mjs';

export async function buildParts() {
  const { buildKernels, buildNode, copyFonts } = await import('./bundle.mjs');
  const { fetchModels } = await import('./model.mjs');
  copyFonts();
  fetchModels();
  await buildKernels();
  await buildNode();
}

/** Builds kernels, worker and command, unless they were built of the same sources. */
export async function buildPartsOnce() {
  const made = await onceFor(
    'parts',
    PARTS_FROM,
    async () => {
      say('Building kernels, worker and command');
      await buildParts();
    },
    () => partsThere(),
  );
  if (!made) say('Kernels, worker and command are up to date');
}

export async function buildAll() {
  await buildPartsOnce();
  const web = await onceFor(
    'web',
    ['src', 'public', 'next.config.ts', 'postcss.config.mjs', 'package-lock.json', 'tsconfig.json'],
    () => {
      say('Building the web application (about half a minute)');
      run('npx', ['next', 'build'], { env: { NEXT_TELEMETRY_DISABLED: '1' } });
    },
    () => existsSync('.next/BUILD_ID'),
  );
  if (!web) say('The web application is up to date');
}

if (import.meta.url === pathToFileURL(process.argv[1]).href) await buildAll();
