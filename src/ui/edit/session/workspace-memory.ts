import { Type, type Static } from '@sinclair/typebox';
import type { StoreApi } from 'zustand';
import { nullable } from '@/core/schema/parts';
import { keep, kept } from '../../parts/kept';
import { SCALES } from '../timeline/geometry';
import type { EditorState } from './state';

/** Where one was in a project, as a browser keeps it. */
const Memory = Type.Object({
  playhead: Type.Number({ minimum: 0 }),
  /** Null shows the whole. */
  scale: nullable(Type.Number({ minimum: SCALES.least, maximum: SCALES.most })),
  panel: Type.Union([Type.Literal('steps'), Type.Literal('footage'), Type.Literal('details')]),
  selected: nullable(Type.String()),
  also: Type.Array(Type.String()),
});
type Memory = Static<typeof Memory>;

const keyOf = (projectId: string): string => `vistum-where-${projectId}`;

/** What was kept of a project, if it is something that was kept. */
export const recall = (projectId: string): Memory | null => kept(keyOf(projectId), Memory);

/** Keeps where one is in the project, so that it is found again after a reload or elsewhere. */
export function remember({ getState }: StoreApi<EditorState>): void {
  const { id, transport, pixelsPerSecond, scaleChosen, panel, selection, also } = getState();
  const memory: Memory = {
    playhead: transport.getState().playhead,
    scale: scaleChosen ? pixelsPerSecond : null,
    panel,
    selected: selection && 'id' in selection ? selection.id : null,
    also: [...also],
  };
  keep(keyOf(id), memory);
}
