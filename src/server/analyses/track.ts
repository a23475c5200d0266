import { rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { AnalysisView, FollowTask } from '@/contract/analyses';
import type { ServerContext } from '../context';
import { newId } from '../ids';
import { limit } from '../limits';
import { workFolder } from '../places';
import { problem } from '../problem';
import { runTool } from '../tools/run-tool';
import type { FollowOrder, FollowSummary } from '../tools/follow';
import { requestAnalysis } from './analyses';
import type { AnalysisKind } from './kind';

/** Where a part of a recording goes that was marked in one of its pictures. */
export const track: AnalysisKind = {
  version: 1,
  needs: 'picture',
  repeatable: true,
  seconds: () => limit('sightSeconds'),
  async run(_context, { facts, path, target, parameters }, { signal, report }) {
    report(0, 'Following it');
    const order: FollowOrder = { facts, task: JSON.parse(parameters) as FollowTask };
    const told = join(workFolder('analyses'), `${newId()}.json`);
    await writeFile(told, JSON.stringify(order));
    try {
      const found = (await runTool(['follow', path, target, told], {
        signal,
        seconds: limit('sightSeconds'),
        // It starts the decoder, which may not be given more than it has itself.
        memory: Math.max(limit('toolMemory'), limit('mediaMemory')),
        onProgress: (share) => report(share, 'Following it'),
      })) as FollowSummary;
      return { summary: { ...found }, provenance: 'found', confidence: found.seen, notes: [] };
    } finally {
      await rm(told, { force: true });
    }
  },
};

/**
 * Asks for where a part of a recording goes.
 *
 * @throws Problem where it is not said which part
 */
export function requestTrack(
  context: ServerContext,
  footageId: string,
  task: FollowTask | undefined,
): Promise<AnalysisView & { readonly jobId: string | null }> {
  if (!task) throw problem('bad-body', 'follow has to say what is to be followed');
  const { x, y, width, height, ms, from, to } = task;
  const parameters = JSON.stringify({ x, y, width, height, ms, from, to });
  return requestAnalysis(context, footageId, 'track', { parameters });
}
