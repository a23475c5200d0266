// Serves Vistum: the web server and, beside it, the worker that does what takes long.
import { fork } from 'node:child_process';
import { pathToFileURL } from 'node:url';
import { buildAll, buildParts } from './build.mjs';
import { root, say } from './lib.mjs';

export async function start({ dev = false, port = process.env.PORT ?? '4180' } = {}) {
  if (dev) await buildParts();
  else await buildAll();
  const env = {
    // Files and the database are waited for in threads of this pool. With the usual four, a few
    // slow writes keep every other request from its files.
    UV_THREADPOOL_SIZE: '24',
    ...process.env,
    VISTUM_ROOT: root,
    NEXT_TELEMETRY_DISABLED: '1',
  };
  let stopping = '';
  let worker;
  const startWorker = () => {
    worker = fork('dist/worker.mjs', [], { env, execArgv: ['--enable-source-maps'] });
    worker.on('exit', () => {
      // A worker that dies is replaced; its job is taken up again when its lease is over.
      if (!stopping) setTimeout(startWorker, 1000);
    });
  };
  startWorker();
  let web;
  const startWeb = () => {
    let ready = false;
    web = fork('dist/web.mjs', dev ? ['--dev'] : [], {
      env: { ...env, PORT: String(port), NODE_ENV: dev ? 'development' : 'production' },
      execArgv: ['--enable-source-maps'],
    });
    web.on('message', () => (ready = true));
    web.on('exit', (code) => {
      // One that served is started again; one that can't even start has said why.
      if (!stopping && ready) return void setTimeout(startWeb, 500);
      stop();
      process.exit(stopping === 'asked' ? 0 : (code ?? 1));
    });
  };
  const stop = (why = 'failed') => {
    stopping ||= why;
    worker.kill('SIGTERM');
    web.kill('SIGTERM');
    setTimeout(() => web.kill('SIGKILL'), 2000).unref();
  };
  startWeb();
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => stop('asked'));
  say(`Vistum is at http://127.0.0.1:${port}`);
}

if (import.meta.url === pathToFileURL(process.argv[1]).href)
  await start({ dev: process.argv.includes('--dev') });
