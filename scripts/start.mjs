// Serves Vistum: the web server and, beside it, the worker that does what takes long.
import { fork, spawn } from 'node:child_process';
import { pathToFileURL } from 'node:url';
import { buildAll, buildParts } from './build.mjs';
import { root, say } from './lib.mjs';

export async function start({ dev = false, port = process.env.PORT ?? '4180' } = {}) {
  if (dev) await buildParts();
  else await buildAll();
  const env = { ...process.env, VISTUM_ROOT: root, NEXT_TELEMETRY_DISABLED: '1' };
  let stopping = false;
  let worker;
  const startWorker = () => {
    worker = fork('dist/worker.mjs', [], { env, execArgv: ['--enable-source-maps'] });
    worker.on('exit', () => {
      // A worker that dies is replaced; its job is taken up again when its lease is over.
      if (!stopping) setTimeout(startWorker, 1000);
    });
  };
  startWorker();
  const web = spawn(
    process.execPath,
    [
      'node_modules/next/dist/bin/next',
      dev ? 'dev' : 'start',
      '-H',
      '127.0.0.1',
      '-p',
      String(port),
    ],
    {
      env,
      stdio: 'inherit',
    },
  );
  const stop = () => {
    stopping = true;
    worker.kill('SIGTERM');
    web.kill('SIGTERM');
    // Open event streams keep the web server from ending by itself.
    setTimeout(() => web.kill('SIGKILL'), 2000).unref();
  };
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, stop);
  web.on('exit', (code) => {
    stop();
    process.exit(stopping ? 0 : (code ?? 1));
  });
  say(`Vistum is at http://127.0.0.1:${port}`);
}

if (import.meta.url === pathToFileURL(process.argv[1]).href)
  await start({ dev: process.argv.includes('--dev') });
