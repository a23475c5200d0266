import type { AnalysisName } from '@/contract/analyses';
import type { AnalysisKind } from './kind';
import { alignment } from './alignment';
import { face, facePath } from './face';
import { matte } from './matte';
import { onsets } from './onsets';
import { pointer } from './pointer';
import { pointerAgain } from './pointer-again';
import { privateData } from './private';
import { screen } from './screen';
import { track } from './track';
import { wall } from './wall';

/** Every kind of analysis by its name. */
export const ANALYSES: Readonly<Record<AnalysisName, AnalysisKind>> = {
  alignment,
  face,
  'face-path': facePath,
  matte,
  onsets,
  pointer,
  'pointer-again': pointerAgain,
  private: privateData,
  screen,
  track,
  wall,
};

/** An analysis by its name. */
export const analysisKind = (name: AnalysisName): AnalysisKind => ANALYSES[name];
