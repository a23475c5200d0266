import { rename } from 'node:fs/promises';
import { bodyToFile } from '../http/read-bytes';
import { requestAnalysis } from '../analyses/analyses';
import { bytesInWords, limit } from '../limits';
import { partOfFile } from '../media/whole-file';
import { problem, Problem } from '../problem';
import { sizeForTrack, trackUpload } from './track';
import { findServedFootage } from './view';

/**
 * Takes a pointer track from the body of a request and queues its reading.
 *
 * @throws Problem when the recording can't have one yet, and for a body that is empty or too large
 */
export async function receiveTrack(id: string, request: Request): Promise<{ jobId: string }> {
  const row = await findServedFootage(id);
  await sizeForTrack(id);
  const target = trackUpload(id);
  const part = partOfFile(target);
  const most = limit('track');
  const size = await bodyToFile(request, part, most).catch((error: unknown) => {
    if (error instanceof Problem && error.code === 'body-too-large')
      throw problem('track-too-large', bytesInWords(most));
    throw error;
  });
  if (!size) throw problem('no-file-sent');
  await rename(part, target);
  const { jobId } = await requestAnalysis(row.id, 'pointer', { again: true });
  return { jobId: jobId! };
}
