import { mkdtempSync } from 'node:fs';
import { demoTask, RATE, FULL_HD, zoomTask, movingTask } from './scenes';
import { Compositor } from '@/compositor/compositor';
import { planFrame } from '@/core/frame/plan-frame';
import { neededParts } from '@/core/frame/needed';
import { FrameRenderer } from '../export/render-frames';
import { loadKernels, nodeRasterizer } from '../media/node-host';
import { frameDuration, secondsToTicks } from '@/core/time/ticks';
const which = process.argv[2];
const start = Number(process.argv[3] ?? 0),
  seconds = Number(process.argv[4] ?? 6);
const folder = mkdtempSync('/tmp/vb-');
const task = which === 'demo' ? await demoTask() : which === 'zoom' ? await zoomTask(folder, 10) : await movingTask(folder, 4, FULL_HD);
const heap = await loadKernels();
const plans = Array.from({ length: seconds * 30 }, (_, i) =>
  planFrame(task.project, task.sources, secondsToTicks(start) + i * frameDuration(RATE), task.output),
);
const P = Compositor.prototype as any;
const t: Record<string, number> = {};
for (const name of ['compose', 'video', 'scaleKeyed', 'cover', 'sprite', 'mix', 'blendInset', 'maskEllipse', 'scaleColor']) {
  const o = P[name];
  P[name] = function (...a: any[]) {
    const s = performance.now();
    const r = o.apply(this, a);
    t[name] = (t[name] ?? 0) + performance.now() - s;
    return r;
  };
}
const x = heap.exports as any;
const wrapped: any = {};
for (const k of Object.keys(x))
  wrapped[k] =
    typeof x[k] === 'function' && k !== 'heapBase'
      ? (...a: any[]) => {
          const s = performance.now();
          const r = x[k](...a);
          t['k:' + k] = (t['k:' + k] ?? 0) + performance.now() - s;
          return r;
        }
      : x[k];
Object.defineProperty(wrapped, 'memory', { get: () => x.memory });
(heap as any).exports = wrapped;
const r = new FrameRenderer(task, heap, await nodeRasterizer(), { parts: neededParts(plans), threads: 1 });
plans.forEach((p, i) => r.render(i, p));
r.close();
for (const [k, v] of Object.entries(t).sort((a, b) => b[1] - a[1])) console.log(k.padEnd(18), (v / plans.length).toFixed(2));
process.exit(0);
