import type { AnalysisView } from '@/contract/analyses';
import type { ServerContext } from '../context';
import { requestAnalysis } from './analyses';

/**
 * Asks for the private data that a recording shows.
 *
 * @param words one's own, in any order
 */
export function requestPrivate(
  context: ServerContext,
  footageId: string,
  words: readonly string[] = [],
): Promise<AnalysisView & { readonly jobId: string | null }> {
  const sought = [...new Set(words.map((word) => word.trim()).filter(Boolean))].sort();
  return requestAnalysis(context, footageId, 'private', { parameters: JSON.stringify(sought) });
}
