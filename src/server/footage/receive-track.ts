import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { ServerContext } from '../context';
import { bodyToFile } from '../http/read-bytes';
import { requestAnalysis } from '../analyses/analyses';
import { bytesInWords, limit } from '../limits';
import { newId } from '../ids';
import { workFolder } from '../places';
import { problem, Problem } from '../problem';
import { sentTrack } from './names';
import { sizeForTrack } from './track';
import { findServedFootage } from './view';

/**
 * Takes a pointer track from the body of a request and queues its reading.
 *
 * @throws Problem when the recording can't have one yet, and for a body that is empty or too large
 */
export async function receiveTrack(
  context: ServerContext,
  id: string,
  request: Request,
): Promise<{ jobId: string }> {
  const row = await findServedFootage(context, id);
  await sizeForTrack(context, id);
  const part = join(workFolder('tracks'), newId());
  const most = limit('track');
  try {
    const size = await bodyToFile(request, part, most);
    if (!size) throw problem('no-file-sent');
    await context.stores.files.put(sentTrack(id), part);
  } catch (error) {
    await rm(part, { force: true });
    if (error instanceof Problem && error.code === 'body-too-large')
      throw problem('track-too-large', bytesInWords(most));
    throw error;
  }
  const { jobId } = await requestAnalysis(context, row.id, 'pointer', { again: true });
  return { jobId: jobId! };
}
