import { build } from 'esbuild';
import { copyFileSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';

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

/** The files of the typeface of the words on the picture, by the names of its parts. */
const FONTS = {
  latin: ['atkinson-hyperlegible-next', 'latin'],
  'latin-ext': ['atkinson-hyperlegible-next', 'latin-ext'],
  cyrillic: ['noto-sans', 'cyrillic'],
  greek: ['noto-sans', 'greek'],
  devanagari: ['noto-sans', 'devanagari'],
  hebrew: ['noto-sans-hebrew', 'hebrew'],
  arabic: ['noto-sans-arabic', 'arabic'],
  thai: ['noto-sans-thai', 'thai'],
};

/** Packages whose typeface lies in a hundred parts, by the scripts that they are for. */
const LATE_FONTS = {
  chinese: 'noto-sans-sc',
  japanese: 'noto-sans-jp',
  korean: 'noto-sans-kr',
};
/** Signs in colours lie in one file: their sequences reach over the parts. */
const EMOJI = 'noto-color-emoji';

/** Puts the typeface of the words on the picture where both hosts find it, with its licences. */
export function copyFonts() {
  mkdirSync('public/fonts', { recursive: true });
  for (const [part, [name, subset]] of Object.entries(FONTS)) {
    const from = `node_modules/@fontsource-variable/${name}`;
    copyFileSync(
      `${from}/files/${name}-${subset}-wght-normal.woff2`,
      `public/fonts/picture-${part}.woff2`,
    );
    copyFileSync(`${from}/LICENSE`, `public/fonts/${name}-licence.txt`);
  }
  copyLateFonts();
}

/** Puts the parts that are fetched when they are wanted there, with the list of what is in each. */
function copyLateFonts() {
  const late = {};
  for (const [script, name] of Object.entries(LATE_FONTS)) {
    const from = `node_modules/@fontsource-variable/${name}`;
    const ranges = JSON.parse(readFileSync(`${from}/unicode.json`, 'utf8'));
    late[script] = {};
    for (const [key, signs] of Object.entries(ranges)) {
      const subset = key.replace(/[[\]]/g, '');
      copyFileSync(
        `${from}/files/${name}-${subset}-wght-normal.woff2`,
        `public/fonts/picture-${script}-${subset}.woff2`,
      );
      late[script][subset] = signs;
    }
    copyFileSync(`${from}/LICENSE`, `public/fonts/${name}-licence.txt`);
  }
  const emoji = `node_modules/@fontsource/${EMOJI}`;
  copyFileSync(
    `${emoji}/files/${EMOJI}-emoji-400-normal.woff2`,
    'public/fonts/picture-emoji-all.woff2',
  );
  copyFileSync(`${emoji}/LICENSE`, `public/fonts/${EMOJI}-licence.txt`);
  late.emoji = { all: 'U+0-10ffff' };
  writeFileSync('public/fonts/late.json', JSON.stringify(late));
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
    'model-thread': 'src/server/matte/model-thread.ts',
    'still-thread': 'src/server/export/still-thread.ts',
    'follow-thread': 'src/server/follow/follow-thread.ts',
    'check-thread': 'src/server/documents/check-thread.ts',
  });
