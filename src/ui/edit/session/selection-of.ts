import { findSpan } from '@/core/edit/spans';
import type { Project } from '@/core/project/model';
import { findClip } from '@/core/project/query';
import type { Selection } from './state';

/** The clip or span of an id as a selection; null when it is no longer there. */
export function selectionOf(project: Project, id: string | null): Selection {
  if (id === null) return null;
  if (findClip(project, id)) return { kind: 'clip', id };
  const span = findSpan(project, id);
  return span && { kind: span.list, id };
}
