import { Type, type Static } from '@sinclair/typebox';
import { Callout } from '../callout/model';
import { Theme } from '../callout/theme';
import { FootageKey } from '../key/model';
import { LayoutSpan } from '../layout/model';
import { PresenterPlacement } from '../layout/placement';
import { PointerSpan } from '../pointer/model';
import { strict } from '../schema/parts';
import { PointerCorrections } from './parts/correction';
import { Framing } from './parts/framing';
import { ClipGroup, Lane } from './parts/lane';
import { FootageLook } from './parts/look';
import { Canvas, ProjectTarget, ScriptSettings } from './parts/settings';
import { Marker, Step } from './parts/step';

/*
 * The project document: one JSON value. Every property is always present and
 * optional things are null, so that equal documents have equal text. The schema
 * is the source: types, checks and `docs/schemas` derive from it.
 */

export * from '../callout/model';
export * from '../key/model';
export * from '../layout/model';
export * from '../layout/placement';
export * from '../pointer/model';
export type { FootageRect } from '../schema/parts';
export * from './parts/correction';
export * from './parts/framing';
export * from './parts/lane';
export * from './parts/look';

export * from './parts/settings';
export * from './parts/step';

export const PROJECT_FORMAT = 'vistum-project';
export const PROJECT_VERSION = 10;

export const Project = strict({
  format: Type.Literal(PROJECT_FORMAT),
  version: Type.Literal(PROJECT_VERSION),
  canvas: Canvas,
  target: ProjectTarget,
  script: ScriptSettings,
  theme: { ...Theme, description: 'What new callouts look like.' },
  lanes: Type.Array(Lane, {
    maxItems: 64,
    description: 'Front to back: what comes first covers what comes later.',
  }),
  framings: Type.Array(Framing, { description: 'Ordered by start, never overlapping.' }),
  layouts: Type.Array(LayoutSpan),
  pointer: Type.Array(PointerSpan),
  callouts: Type.Array(Callout),
  steps: Type.Array(Step, { maxItems: 20000, description: 'In the order of the outline.' }),
  markers: Type.Array(Marker, { maxItems: 20000, description: 'Ordered by time.' }),
  groups: Type.Array(ClipGroup),
  presenter: PresenterPlacement,
  keys: Type.Array(FootageKey, {
    description: 'Chroma key settings, one for each recording that has them.',
  }),
  corrections: Type.Array(PointerCorrections, {
    description: 'What was mended of pointer tracks, one for each recording that has any.',
  }),
  looks: Type.Array(FootageLook, {
    description: 'What is shown of a recording and how, one for each recording that has one.',
  }),
});
export type Project = Static<typeof Project>;
