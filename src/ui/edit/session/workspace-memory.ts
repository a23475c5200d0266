import { Type, type Static } from '@sinclair/typebox';
import type { StoreApi } from 'zustand';
import { findSpan } from '@/core/edit/spans';
import { findClip } from '@/core/project/query';
import { nullable } from '@/core/schema/parts';
import { isOf } from '@/core/schema/check-plain';
import type { Project } from '@/core/project/model';
import { SCALES } from '../timeline/geometry';
import type { EditorState, Selection } from './state';

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
export function recall(projectId: string): Memory | null {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(keyOf(projectId)) ?? 'null');
    return isOf(Memory, kept) ? kept : null;
  } catch {
    return null;
  }
}

/** The clip or span of an id as a selection; null when it is no longer there. */
export function selectionOf(project: Project, id: string | null): Selection {
  if (id === null) return null;
  if (findClip(project, id)) return { kind: 'clip', id };
  const span = findSpan(project, id);
  return span && { kind: span.list, id };
}

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
  try {
    localStorage.setItem(keyOf(id), JSON.stringify(memory));
  } catch {
    // Without a store it lasts as long as the page.
  }
}
