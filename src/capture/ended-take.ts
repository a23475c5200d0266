import { call, CallError } from '@/contract/call';
import { changeTake, viewTake, type TakeView } from '@/contract/takes';

/** Whether a later answer may be another: the server is away, or not itself. */
const mayPass = (error: unknown): boolean =>
  error instanceof CallError && (error.status === 0 || error.status >= 500);

const LOOK_MS = 200;
/** A server that does not answer is asked again for so long, in milliseconds. */
const PATIENCE_MS = 30_000;

/**
 * A take that was ended, once its tracks are finished.
 *
 * @throws Error with a sentence when they can't be, or the server does not answer
 */
export async function finishedTake(id: string): Promise<TakeView> {
  let heard = performance.now();
  for (;;) {
    const take = await call(viewTake, { params: { id } }).catch((error: unknown) => {
      if (!mayPass(error) || performance.now() - heard > PATIENCE_MS) throw error;
      return null;
    });
    if (take) {
      heard = performance.now();
      if (take.status === 'recording')
        throw new Error(
          'The take could not be finished. Nothing of it is lost: it can be rescued in Record.',
        );
      if (take.status !== 'closing') return take;
    }
    await new Promise((resolve) => setTimeout(resolve, LOOK_MS));
  }
}

/** Puts away a take that was ended; it can be brought back from the drawer of takes. */
export async function putTakeAway(id: string): Promise<void> {
  await finishedTake(id);
  await call(changeTake, { params: { id }, body: { discarded: true } });
}
