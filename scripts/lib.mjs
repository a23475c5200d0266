// Shared by the scripts that must run before anything is installed: Node's own modules only.
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = dirname(dirname(fileURLToPath(import.meta.url)));
process.chdir(root);

const started = Date.now();
export const say = (text) =>
  console.log(`[${((Date.now() - started) / 1000).toFixed(0).padStart(3)} s] ${text}`);

/** Runs a command to its end; ends this script with a sentence when it fails. */
export function run(command, args, options = {}) {
  const { status, error, signal } = spawnSync(command, args, {
    stdio: 'inherit',
    ...options,
    env: { ...process.env, ...options.env },
  });
  if (status !== 0) failed(command, args, error?.message ?? signal, status);
}

/** The same beside what else is done; several can be under way at once. */
export const runBeside = (command, args, options = {}) =>
  new Promise((resolve) => {
    const child = spawn(command, args, {
      stdio: 'inherit',
      ...options,
      env: { ...process.env, ...options.env },
    });
    child.on('error', (error) => failed(command, args, error.message));
    child.on('close', (status, signal) =>
      status === 0 ? resolve() : failed(command, args, signal, status),
    );
  });

function failed(command, args, why, status) {
  const how = why ? `: ${why}` : ` with code ${status}`;
  console.error(`\n${command} ${args.join(' ')} failed${how}.`);
  process.exit(status || 1);
}

/**
 * Runs commands beside each other; what each says is shown when all have ended, and the first that
 * failed ends this script.
 */
export async function runTogether(commands, options = {}) {
  const ended = await Promise.all(
    commands.map(
      ([command, ...args]) =>
        new Promise((resolve) => {
          const said = [];
          const child = spawn(command, args, {
            stdio: ['ignore', 'pipe', 'pipe'],
            env: { ...process.env, ...options.env },
          });
          for (const stream of [child.stdout, child.stderr])
            stream.on('data', (chunk) => said.push(chunk));
          child.on('error', (error) => said.push(Buffer.from(error.message)));
          child.on('close', (status) =>
            resolve({
              name: [command, ...args].join(' '),
              status,
              text: Buffer.concat(said).toString(),
            }),
          );
        }),
    ),
  );
  for (const { name, text } of ended) console.log(`${name}\n${text}`);
  const failed = ended.find(({ status }) => status !== 0);
  if (!failed) return;
  console.error(`\n${failed.name} failed.`);
  process.exit(failed.status || 1);
}

export const has = (command) =>
  spawnSync('sh', ['-c', `command -v ${command}`], { stdio: 'ignore' }).status === 0;

function* filesBelow(path) {
  if (!existsSync(path)) return;
  if (statSync(path).isFile()) return yield path;
  for (const name of readdirSync(path).sort())
    if (!['node_modules', 'dist', '.next'].includes(name)) yield* filesBelow(join(path, name));
}

/** One hash for the contents of files and folders. */
export function hashOf(paths) {
  const hash = createHash('sha256');
  for (const path of paths)
    for (const file of filesBelow(path)) hash.update(file).update(readFileSync(file));
  return hash.digest('hex');
}

/** Does something unless it was done for the same contents before. */
export async function onceFor(name, paths, work, stillThere = () => true) {
  const file = join('.stamps', name);
  const now = hashOf(paths);
  if (existsSync(file) && readFileSync(file, 'utf8') === now && stillThere()) return false;
  await work();
  mkdirSync('.stamps', { recursive: true });
  writeFileSync(file, hashOf(paths));
  return true;
}

/** What kernels, worker and command are made from. */
export const PARTS_FROM = [
  'src/core',
  'src/kernels',
  'src/sight',
  'src/compositor',
  'src/server',
  'src/cli',
  'scripts/bundle.mjs',
  'scripts/model.mjs',
  'package-lock.json',
];

/** Whether kernels, worker and command are there. */
export const partsThere = () =>
  [
    'public/fonts/picture-arabic.woff2',
    'public/fonts/late.json',
    'public/kernels.wasm',
    'dist/worker.mjs',
    'dist/web.mjs',
    'dist/models/person.bin',
    'dist/models/face.bin',
  ].every((f) => existsSync(f));
