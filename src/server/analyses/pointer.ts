import { TRACK_VERSION } from './found-track';
import { sentTrack } from '../footage/names';
import { limit } from '../limits';
import { problem, Problem } from '../problem';
import { runTool } from '../tools/run-tool';
import type { AnalysisKind } from './kind';

/** The pointer's path, from a track that was recorded beside the footage and sent. */
export const pointer: AnalysisKind = {
  version: TRACK_VERSION,
  needs: 'picture',
  repeatable: false,
  seconds: () => limit('trackSeconds') + 60,
  async run({ stores }, { footage, facts, target }, { signal, report }) {
    report(0.1, 'Reading the pointer track');
    const { width, height } = facts;
    const sent = await stores.files.path(sentTrack(footage.id));
    const args = ['track', sent, target, String(width), String(height)];
    const limits = { seconds: limit('trackSeconds'), memory: limit('toolMemory') };
    try {
      const read = (await runTool(args, { signal, ...limits })) as {
        notes: readonly string[];
        samples: number;
      };
      return {
        summary: { samples: read.samples },
        provenance: 'recorded',
        confidence: 1,
        notes: [`${read.samples} positions.`, ...read.notes],
      };
    } catch (error) {
      if (error instanceof Problem && error.code === 'media-too-slow')
        throw problem('track-too-slow');
      throw error;
    }
  },
  clear: ({ stores }, footageId) => stores.files.remove(sentTrack(footageId)),
};
