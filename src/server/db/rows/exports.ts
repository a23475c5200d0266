import { ExportProof, ExportResult, ExportSettings, type ExportView } from '@/contract/exports';
import { DEFAULT_SETTINGS } from '../../export/settings';
import type { ExportRow } from '../models';
import { isoOf, jsonOr, parsed } from '../stored';

/** An export as the database has it, without what it renders. */
export interface StoredExport extends Omit<ExportView, 'status' | 'progress' | 'message'> {
  readonly projectId: string;
}

/** Stands for settings that can't be read. */
const UNREADABLE: ExportSettings = {
  ...DEFAULT_SETTINGS,
  width: 16,
  height: 16,
  frameRate: { num: 30, den: 1 },
};

/** Settings as they were stored; those of older exports lack what came later. */
export function settingsOf(text: unknown): ExportSettings {
  const value = parsed(text);
  const whole = typeof value === 'object' && { ...DEFAULT_SETTINGS, ...value };
  return jsonOr(ExportSettings, JSON.stringify(whole), UNREADABLE);
}

/** A row of exports as what it stands for. */
export const exportOf = (row: ExportRow): StoredExport => ({
  id: row.id,
  projectId: row.projectId,
  name: row.name,
  settings: settingsOf(row.settings),
  result: jsonOr(ExportResult, row.result, null),
  proof: jsonOr(ExportProof, row.proof, null),
  createdAt: isoOf(row.createdAt),
});

/** Settings as the row's cell has them. */
export const settingsCell = (settings: ExportSettings): string => JSON.stringify(settings);

/** What came of an export, as the row's cell has it. */
export const resultCell = (result: ExportResult): string => JSON.stringify(result);

/** What came of a look under the covers, as the row's cell has it. */
export const proofCell = (proof: ExportProof): string => JSON.stringify(proof);
