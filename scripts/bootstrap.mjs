// Brings a fresh machine to where Vistum can run. Quick when there is nothing to do.
import { existsSync } from 'node:fs';
import { has, onceFor, run, runBeside, say } from './lib.mjs';

const major = Number(process.versions.node.split('.')[0]);
if (major < 20) {
  console.error(`Vistum needs Node 20 or newer; this is ${process.versions.node}.`);
  process.exit(1);
}

const TO_COMPILE = [
  // sqlite3 is compiled on the way; against the system's library that takes seconds instead of
  // minutes.
  {
    test: () => existsSync('/usr/include/sqlite3.h'),
    name: 'libsqlite3-dev',
    why: 'database library',
  },
  { test: () => has('make'), name: 'make', why: 'compiles the database module' },
  { test: () => has('g++'), name: 'g++', why: 'compiles the database module' },
  { test: () => has('python3'), name: 'python3', why: 'compiles the database module' },
];
const TO_RUN = [
  { test: () => has('ffmpeg') && has('ffprobe'), name: 'ffmpeg', why: 'decodes and encodes' },
  { test: () => has('tesseract'), name: 'tesseract-ocr', why: 'reads text in pictures' },
];
const FOR_TESTS = [
  { test: () => has('chromium'), name: 'chromium', why: 'browser tests' },
  {
    test: () => has('chromium-headless-shell'),
    name: 'chromium-headless-shell',
    why: 'browser tests',
  },
];

const missingOf = (list) => list.filter((p) => !p.test());

/** Ends this script with what is to be installed by hand, where it can't do so itself. */
function mustBeAbleToInstall(missing) {
  if (!missing.length || (has('apt-get') && process.getuid?.() === 0)) return;
  const names = missing.map((p) => p.name);
  console.error(
    `Please install: ${names.join(', ')} (${missing.map((p) => p.why).join(', ')}). On Debian, as root: apt-get install ${names.join(' ')}`,
  );
  process.exit(1);
}

async function systemPackages(missing) {
  if (!missing.length) return;
  const names = missing.map((p) => p.name);
  say(`Installing system packages: ${names.join(', ')}`);
  const apt = ['-o', 'DPkg::Lock::Timeout=120', '-qq', '-y'];
  const env = { DEBIAN_FRONTEND: 'noninteractive' };
  await runBeside('apt-get', [...apt, 'update'], { env });
  await runBeside('apt-get', [...apt, 'install', '--no-install-recommends', ...names], {
    env,
    stdio: ['ignore', 'ignore', 'inherit'],
  });
}

export async function bootstrap({ tests = false } = {}) {
  say('Checking system packages');
  const toCompile = missingOf(TO_COMPILE);
  const toRun = missingOf(tests ? [...TO_RUN, ...FOR_TESTS] : TO_RUN);
  mustBeAbleToInstall([...toCompile, ...toRun]);
  await systemPackages(toCompile);
  // Unpacking both takes minutes on a fresh machine, much of it waiting for the disk.
  await Promise.all([systemPackages(toRun), modules()]);
}

async function modules() {
  const installed = await onceFor(
    'npm',
    ['package.json', 'package-lock.json'],
    async () => {
      say('Installing npm packages (a minute or two at first)');
      // The list of what is installed stays as it was committed: npm would add what other systems
      // need.
      await runBeside(
        'npm',
        ['install', '--no-save', '--no-audit', '--no-fund', '--loglevel=error'],
        {
          env: {
            npm_config_sqlite: '/usr',
            ...(existsSync('/usr/include/node/node.h') ? { npm_config_nodedir: '/usr' } : {}),
            CFLAGS: '-O1',
            CXXFLAGS: '-O1',
          },
        },
      );
    },
    () => existsSync('node_modules/next/package.json'),
  );
  if (!installed) say('npm packages are up to date');
  if (!existsSync('node_modules/sqlite3/build/Release/node_sqlite3.node')) {
    say('Compiling the database module');
    run('npm', ['rebuild', 'sqlite3', '--loglevel=error'], {
      env: {
        npm_config_sqlite: '/usr',
        npm_config_nodedir: '/usr',
        CFLAGS: '-O1',
        CXXFLAGS: '-O1',
      },
    });
  }
}
