import type { Canvas, FootageKey, Framing, Lane, PresenterPlacement, Project, Step } from '../project/model';
import { EditError } from './error';

/** Switches a lane's sight or sound, locks it, or sets its level or name. */
export function changeLane(project: Project, laneId: string, change: Partial<Pick<Lane, 'off' | 'locked' | 'gain' | 'name'>>): void {
  const lane = project.lanes.find((l) => l.id === laneId);
  if (!lane) throw new EditError('That lane is no longer there.');
  Object.assign(lane, change);
}

/** Changes where and how the presenter stands. */
export function changePresenter(project: Project, change: Partial<PresenterPlacement>): void {
  Object.assign(project.presenter, change);
}

/** Changes size, rate or background of the picture. */
export function changeCanvas(project: Project, change: Partial<Canvas>): void {
  Object.assign(project.canvas, change);
}

export const DEFAULT_KEY: Omit<FootageKey, 'footageId'> = { on: true, color: '#2f9a4b', tolerance: 34, softness: 14 };

/** Changes the chroma key of a recording; makes one if it has none. */
export function changeKey(project: Project, footageId: string, change: Partial<Omit<FootageKey, 'footageId'>>): void {
  const key = project.keys.find((k) => k.footageId === footageId);
  if (key) Object.assign(key, change);
  else project.keys.push({ footageId, ...DEFAULT_KEY, ...change });
}

/** Puts planned framings in the place of those there were. */
export function replaceFramings(project: Project, framings: readonly Framing[]): void {
  project.framings = [...framings];
}

/** Puts a step in its place on the ribbon. */
export function addStep(project: Project, step: Step): void {
  if (project.steps.some((s) => s.start === step.start))
    throw new EditError('A step already begins here. Move the playhead to begin another.');
  project.steps.push(step);
  project.steps.sort((a, b) => a.start - b.start);
}

/** Changes the words of a step. */
export function changeStep(project: Project, id: string, change: Partial<Pick<Step, 'title' | 'narration' | 'action'>>): void {
  const step = project.steps.find((s) => s.id === id);
  if (!step) throw new EditError('That step is no longer there.');
  Object.assign(step, change);
}

/** Removes a step; what happens in its time stays. */
export function removeStep(project: Project, id: string): void {
  project.steps = project.steps.filter((s) => s.id !== id);
}
