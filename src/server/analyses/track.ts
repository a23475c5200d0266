import { rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { FollowTask } from '@/contract/analyses';
import { newId } from '../ids';
import { limit } from '../limits';
import { workFolder } from '../places';
import { runTool } from '../tools/run-tool';
import type { FollowOrder, FollowSummary } from '../tools/follow';
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
