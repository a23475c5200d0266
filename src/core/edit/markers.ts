import type { Marker, Project } from '../project/model';
import type { Ticks } from '../time/ticks';
import { EditError } from './error';

/**
 * Colours that markers are offered in: those of the lanes, so that nothing else comes to stand on
 * the timeline.
 */
export const MARKER_COLORS = [
  '#8e3f66',
  '#3d6785',
  '#4e7747',
  '#a0573a',
  '#7d6b1f',
  '#5c5596',
] as const;

/** Puts a marker on the timeline. */
export function addMarker(project: Project, marker: Marker): void {
  if (project.markers.some((m) => m.time === marker.time))
    throw new EditError('There is a marker here already.');
  project.markers.push(marker);
  project.markers.sort((a, b) => a.time - b.time);
}

/** Changes a marker's name or colour. */
export function changeMarker(
  project: Project,
  id: string,
  change: Partial<Pick<Marker, 'name' | 'color'>>,
): void {
  const marker = project.markers.find((m) => m.id === id);
  if (!marker) throw new EditError('That marker is no longer there.');
  Object.assign(
    marker,
    change.name === undefined ? change : { ...change, name: change.name.slice(0, 200) },
  );
}

/** Moves a marker to an instant, not before the start and not onto another marker. */
export function moveMarker(project: Project, id: string, time: Ticks): void {
  const marker = project.markers.find((m) => m.id === id);
  if (!marker) throw new EditError('That marker is no longer there.');
  const at = Math.max(0, time);
  if (project.markers.some((m) => m.id !== id && m.time === at))
    throw new EditError('There is a marker here already.');
  marker.time = at;
  project.markers.sort((a, b) => a.time - b.time);
}

/** Removes a marker; nothing happens when it is not there. */
export function removeMarker(project: Project, id: string): void {
  project.markers = project.markers.filter((m) => m.id !== id);
}
