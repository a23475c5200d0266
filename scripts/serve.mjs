// A server of its own for scripts that drive a browser.
import { spawn } from 'node:child_process';

const TRIES = 240;

/**
 * Starts Vistum on a port and waits until it answers; the answer is its address and how to stop it.
 */
export async function serve(port, env = {}) {
  const server = spawn(process.execPath, ['scripts/start.mjs'], {
    env: { ...process.env, ...env, PORT: port },
    stdio: 'ignore',
  });
  const base = `http://127.0.0.1:${port}`;
  for (let i = 0; i < TRIES; i++) {
    const there = await fetch(`${base}/api/projects`).then(
      (r) => r.ok,
      () => false,
    );
    if (there) break;
    await new Promise((resolve) => setTimeout(resolve, 1000));
  }
  return { base, stop: () => server.kill('SIGTERM') };
}
