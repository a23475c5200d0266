import type { AnalysisKind } from './kind';
import { pointer } from './pointer';
import { wall } from './wall';

/** Every analysis there is, by its name. */
export const ANALYSES = { pointer, wall } as const satisfies Readonly<Record<string, AnalysisKind>>;

export type AnalysisName = keyof typeof ANALYSES;
export const ANALYSIS_NAMES = Object.keys(ANALYSES) as AnalysisName[];

/** An analysis by its name. */
export const analysisKind = (name: AnalysisName): AnalysisKind => ANALYSES[name];
