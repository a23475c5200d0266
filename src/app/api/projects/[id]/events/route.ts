import { listExports } from '@/server/export/job';
import { listFootage } from '@/server/footage';
import { handle } from '@/server/http/handle';
import { activeJobs } from '@/server/jobs/queue';
import { findProject } from '@/server/projects';
import { listTakes } from '@/server/takes/takes';

export const dynamic = 'force-dynamic';
type Context = { params: Promise<{ id: string }> };

const EVERY_MS = 500;
const KEEP_ALIVE_MS = 15_000;

/** Footage, exports, jobs, takes and the stored revision as they change, as server-sent events. */
export const GET = handle<Context>(async (request, { params }) => {
  const { id } = await params;
  await findProject(id);
  const encoder = new TextEncoder();
  let timer: ReturnType<typeof setTimeout>;
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      let last = '';
      let quietSince = Date.now();
      const look = async () => {
        try {
          const { revision, name } = await findProject(id);
          const state = JSON.stringify({
            revision,
            name,
            footage: await listFootage(id),
            exports: await listExports(id),
            jobs: await activeJobs(id),
            takes: await listTakes(id),
          });
          if (state !== last) {
            controller.enqueue(encoder.encode(`data: ${state}\n\n`));
            last = state;
            quietSince = Date.now();
          } else if (Date.now() - quietSince > KEEP_ALIVE_MS) {
            controller.enqueue(encoder.encode(': still here\n\n'));
            quietSince = Date.now();
          }
        } catch {
          clearTimeout(timer);
          // The reader may have gone already, and the stream with it.
          try {
            controller.close();
          } catch {
            return;
          }
          return;
        }
        timer = setTimeout(() => void look(), EVERY_MS);
      };
      request.signal.addEventListener('abort', () => clearTimeout(timer));
      void look();
    },
    cancel() {
      clearTimeout(timer);
    },
  });
  return new Response(stream, {
    headers: {
      'content-type': 'text/event-stream',
      'cache-control': 'no-store',
      'x-accel-buffering': 'no',
    },
  });
});
