import type { ServerContext } from '../context';
import { findProject } from '../documents/documents';
import { limit } from '../limits';
import { problem } from '../problem';
import { feed } from './feed';

const KEEP_ALIVE_MS = 15_000;
/** A reader that has so many events waiting has gone to sleep; it connects again when it wakes. */
const MOST_WAITING = 64;

const encoder = new TextEncoder();

/**
 * A project's state as it changes, as server-sent events.
 *
 * @throws Problem when there is no such project, or too many listen already
 */
export async function eventStream(context: ServerContext, projectId: string): Promise<Response> {
  await findProject(context, projectId);
  if (feed(context).count >= limit('listeners')) throw problem('too-many-listeners');
  let end = () => {};
  const stream = new ReadableStream<Uint8Array>(
    {
      start(controller) {
        const send = (text: string) => {
          if (MOST_WAITING + (controller.desiredSize ?? 0) < 0) finish();
          else controller.enqueue(encoder.encode(text));
        };
        const alive = setInterval(() => send(': still here\n\n'), KEEP_ALIVE_MS);
        const silence = feed(context).listen(projectId, (state) => {
          if (state === null) finish();
          else send(`data: ${state}\n\n`);
        });
        end = () => {
          clearInterval(alive);
          silence();
        };
        const finish = () => {
          end();
          try {
            controller.close();
          } catch {
            // The reader has gone already.
          }
        };
      },
      cancel: () => end(),
    },
    { highWaterMark: 1 },
  );
  return new Response(stream, {
    headers: {
      'content-type': 'text/event-stream',
      'cache-control': 'no-store',
      'x-accel-buffering': 'no',
    },
  });
}
