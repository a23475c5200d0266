import { Type } from '@sinclair/typebox';
import { ANALYSIS_NAMES, type AnalysisView } from '@/contract/analyses';
import type { AnalysisRow } from '../models';
import { jsonOr, wordOr } from '../stored';

/** An analysis as the database has it. */
export interface StoredAnalysis extends Omit<AnalysisView, 'outdated'> {
  readonly projectId: string;
  readonly version: number;
  readonly parameters: string;
  readonly confidence: number | null;
}

const Summary = Type.Record(Type.String(), Type.Unknown());

/** A row of analyses as what it stands for; null for a kind that this Vistum does not know. */
export function analysisOf(row: AnalysisRow): StoredAnalysis | null {
  const kind = wordOr(ANALYSIS_NAMES, row.kind, null);
  return (
    kind && {
      id: row.id,
      footageId: row.footageId,
      projectId: row.projectId,
      kind,
      parameters: row.parameters,
      version: row.version,
      status: row.status,
      error: row.error,
      summary: jsonOr(Summary, row.summary, {}),
      provenance: row.provenance,
      confidence: row.confidence,
    }
  );
}

/** A few numbers of an analysis, as the row's cell has them. */
export const summaryCell = (summary: StoredAnalysis['summary']): string => JSON.stringify(summary);
