import { Type } from '@sinclair/typebox';
import { FootageKey } from '../key/model';
import { EditError } from './error';
import type { Canvas, Framing, PresenterPlacement, Project } from '../project/model';
import { FootageLook } from '../project/parts/look';
import { defaultsOf } from '../schema/setting';

/** Changes where and how the presenter stands. */
export function changePresenter(project: Project, change: Partial<PresenterPlacement>): void {
  Object.assign(project.presenter, change);
}

/** Changes size, rate or background of the picture. */
export function changeCanvas(project: Project, change: Partial<Canvas>): void {
  Object.assign(project.canvas, change);
}

/** The key that a recording has first; its colour is a usual green. */
export const DEFAULT_KEY: Omit<FootageKey, 'footageId'> = defaultsOf(
  Type.Omit(FootageKey, ['footageId']),
);

/** How a recording is shown unless something else was set. */
export const DEFAULT_LOOK: Omit<FootageLook, 'footageId'> = defaultsOf(
  Type.Omit(FootageLook, ['footageId']),
);

/** Changes the chroma key of a recording; makes one if it has none. */
export function changeKey(
  project: Project,
  footageId: string,
  change: Partial<Omit<FootageKey, 'footageId'>>,
): void {
  const key = project.keys.find((k) => k.footageId === footageId);
  if (key) Object.assign(key, change);
  else project.keys.push({ footageId, ...DEFAULT_KEY, ...change });
}

/** Puts planned framings in the place of those there were. */
export function replaceFramings(project: Project, framings: readonly Framing[]): void {
  if (framings.some((f, i) => i > 0 && f.start < framings[i - 1]!.end))
    throw new EditError('Framings follow each other in time; these lie over each other.');
  project.framings = [...framings];
}

/** Changes what is shown of a recording, or its brightness; makes an entry if it has none. */
export function changeLook(
  project: Project,
  footageId: string,
  change: Partial<Omit<FootageLook, 'footageId'>>,
): void {
  const look = project.looks.find((l) => l.footageId === footageId);
  if (look) Object.assign(look, change);
  else
    project.looks.push({
      footageId,
      ...DEFAULT_LOOK,
      ...change,
    });
}
