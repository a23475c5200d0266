import { build } from 'esbuild';
import { copyFileSync, mkdirSync } from 'node:fs';

/** Compiles the pixel kernels to WebAssembly. */
export async function buildKernels() {
  const { main } = await import('assemblyscript/asc');
  mkdirSync('public', { recursive: true });
  const { error, stderr } = await main([
    'src/kernels/assembly/index.ts',
    '--outFile',
    'public/kernels.wasm',
    '--enable',
    'simd',
    '-O3',
    '--noAssert',
    '--runtime',
    'stub',
    '--initialMemory',
    '16',
    '--memoryBase',
    '1024',
  ]);
  if (error) throw new Error(`The kernels did not compile.\n${stderr.toString()}`);
}

const FONTS = 'node_modules/@fontsource-variable/atkinson-hyperlegible-next/files';
const SUBSETS = ['latin', 'latin-ext'];

/** Puts the typeface of the words on the picture where the preview's worker can fetch it. */
export function copyFonts() {
  mkdirSync('public/fonts', { recursive: true });
  for (const subset of SUBSETS)
    copyFileSync(
      `${FONTS}/atkinson-hyperlegible-next-${subset}-wght-normal.woff2`,
      `public/fonts/picture-${subset}.woff2`,
    );
}

/** Bundles entry points for Node; packages stay outside. */
export const bundleNode = (entryPoints, more = {}) =>
  build({
    entryPoints,
    outdir: 'dist',
    outExtension: { '.js': '.mjs' },
    bundle: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    packages: 'external',
    sourcemap: true,
    logLevel: 'warning',
    ...more,
  });

export const buildNode = () =>
  bundleNode({
    web: 'src/server/web/main.ts',
    worker: 'src/server/jobs/worker.ts',
    vistum: 'src/cli/main.ts',
    tool: 'src/server/tools/main.ts',
    'segment-thread': 'src/server/export/segment-thread.ts',
    'still-thread': 'src/server/export/still-thread.ts',
    'check-thread': 'src/server/documents/check-thread.ts',
  });
