// Somebody else at work: asks again and again for what a tab needs, in a thread of its own, and
// notes how long each took.
import { parentPort, workerData } from 'node:worker_threads';

const { base, paths } = workerData;
const waits = [];
let going = true;
parentPort.on('message', () => (going = false));
while (going) {
  for (const path of paths) {
    const began = performance.now();
    const ok = await fetch(`${base}${path}`).then(
      async (response) => (await response.arrayBuffer(), response.ok),
      () => false,
    );
    waits.push(ok ? performance.now() - began : Infinity);
  }
  await new Promise((resolve) => setTimeout(resolve, 20));
}
parentPort.postMessage(waits);
process.exit(0);
