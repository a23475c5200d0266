import type { AnalysisName } from '@/contract/analyses';
import type { AnalysisKind } from './kind';
import { pointer } from './pointer';
import { wall } from './wall';

/** Every kind of analysis by its name. */
export const ANALYSES: Readonly<Record<AnalysisName, AnalysisKind>> = { pointer, wall };

/** An analysis by its name. */
export const analysisKind = (name: AnalysisName): AnalysisKind => ANALYSES[name];
