import type { Marker, Project } from '../project/model';
import { EditError } from './error';

/** Puts a marker on the timeline. */
export function addMarker(project: Project, marker: Marker): void {
  if (project.markers.some((m) => m.time === marker.time)) throw new EditError('There is a marker here already.');
  project.markers.push(marker);
  project.markers.sort((a, b) => a.time - b.time);
}

/** Renames a marker. */
export function renameMarker(project: Project, id: string, name: string): void {
  const marker = project.markers.find((m) => m.id === id);
  if (!marker) throw new EditError('That marker is no longer there.');
  marker.name = name.slice(0, 200);
}

/** Removes a marker; nothing happens when it is not there. */
export function removeMarker(project: Project, id: string): void {
  project.markers = project.markers.filter((m) => m.id !== id);
}
