import type { MediaFacts } from '@/contract/footage';
import { limit } from '../limits';
import { runOrdered } from '../tools/run-ordered';
import type { AnalysisKind } from './kind';

/** What a tool that looks through a recording is given and tells. */
interface ByTool<S> {
  /** What it says that it does. */
  readonly says: string;
  /** What it is told, of the recording and of what was asked for; the recording's facts if not said. */
  readonly order?: (facts: MediaFacts, parameters: string) => unknown;
  /** Further arguments. */
  readonly more?: readonly string[];
  /** How sure it is of what it answered, 0 to 1. */
  readonly confidence: (found: S) => number;
}

/**
 * An analysis of a recording's pictures that one tool makes, with what it answers as its summary.
 * The same recording always gives the same.
 */
export const byTool = <S extends object>(
  tool: Parameters<typeof runOrdered>[0],
  { says, order = (facts) => facts, more = [], confidence }: ByTool<S>,
): AnalysisKind => ({
  version: 1,
  needs: 'picture',
  repeatable: true,
  seconds: () => limit('sightSeconds'),
  async run(_context, { facts, path, target, parameters }, { signal, report }) {
    report(0, says);
    const found = (await runOrdered(tool, order(facts, parameters), [path, target, ...more], {
      signal,
      onProgress: (share) => report(share, says),
    })) as S;
    const summary = { ...(found as object) };
    return { summary, provenance: 'found', confidence: confidence(found), notes: [] };
  },
});

/** How sure it is of what either was found or was not. */
export const foundOrNot = ({ found }: { readonly found: boolean }): number => (found ? 1 : 0);
