import type { CaptionNeed } from '../project/targets';
import { targetOf, type TargetId } from '../project/targets';
import type { Project, Step } from '../project/model';
import type { Ticks } from '../time/ticks';
import { EditError } from './error';

/** What a step says; all but its id and time. */
export type StepWords = Pick<Step, 'title' | 'narration' | 'action' | 'notes'>;

const indexOf = (project: Project, id: string): number => {
  const index = project.steps.findIndex((s) => s.id === id);
  if (index < 0) throw new EditError('That step is no longer there.');
  return index;
};

/** The words of a step with nothing in it yet. */
export const EMPTY_WORDS: StepWords = { title: '', narration: '', action: '', notes: '' };

/** A planned step with nothing in it yet. */
export const emptyStep = (id: string): Step => ({ id, start: null, ...EMPTY_WORDS });

/** Puts a step that begins at an instant behind the one that is shown there until now. */
export function addStep(project: Project, step: Omit<Step, 'start'> & { start: Ticks }): void {
  if (project.steps.some((s) => s.start === step.start))
    throw new EditError('A step already begins here. Move the playhead to begin another.');
  let before = -1;
  let latest = -1;
  project.steps.forEach((s, i) => {
    if (s.start === null || s.start > step.start || s.start <= latest) return;
    latest = s.start;
    before = i;
  });
  project.steps.splice(before + 1, 0, step);
}

/** Puts planned steps at a place of the outline; at its end when that is null. */
export function insertSteps(project: Project, at: number | null, steps: readonly Step[]): void {
  project.steps.splice(at ?? project.steps.length, 0, ...steps);
}

/** Changes the words of a step. */
export function changeStep(project: Project, id: string, change: Partial<StepWords>): void {
  Object.assign(project.steps[indexOf(project, id)]!, change);
}

/** Removes a step; what happens in its time stays. */
export function removeStep(project: Project, id: string): void {
  project.steps = project.steps.filter((s) => s.id !== id);
}

/**
 * Moves a step to a place in the outline, counted without it. What is recorded stays where it is on
 * the timeline.
 */
export function moveStep(project: Project, id: string, to: number): void {
  const [step] = project.steps.splice(indexOf(project, id), 1);
  project.steps.splice(Math.max(0, Math.min(to, project.steps.length)), 0, step!);
}

/**
 * Splits a step's narration at a character: what follows goes into a new planned step behind it.
 * @returns id of the new step
 */
export function splitStep(project: Project, id: string, at: number, newId: () => string): string {
  const index = indexOf(project, id);
  const step = project.steps[index]!;
  const rest = step.narration.slice(at).trim();
  const kept = step.narration.slice(0, at).trim();
  if (!rest || !kept)
    throw new EditError(
      'There is nothing to split off there. Put the caret between two words of the narration.',
    );
  step.narration = kept;
  const added = { ...emptyStep(newId()), narration: rest };
  project.steps.splice(index + 1, 0, added);
  return added.id;
}

const joinText = (a: string, b: string, between: string) => [a, b].filter(Boolean).join(between);

/**
 * Joins a step to the one before it, which gets its words and, if it has none, its place on the
 * timeline.
 */
export function joinStep(project: Project, id: string): void {
  const index = indexOf(project, id);
  const into = project.steps[index - 1];
  if (!into) throw new EditError('There is no step before this one to join it to.');
  const from = project.steps[index]!;
  into.title = joinText(into.title, from.title, ', ');
  into.narration = joinText(into.narration, from.narration, '\n\n');
  into.action = joinText(into.action, from.action, '\n');
  into.notes = joinText(into.notes, from.notes, '\n');
  into.start ??= from.start;
  project.steps.splice(index, 1);
}

/** Sets where the video will be shown, and with it size, rate, loudness and captions. */
export function setTarget(project: Project, id: TargetId): void {
  const { width, height, frameRate, loudness, captions } = targetOf(id);
  Object.assign(project.canvas, { width, height, frameRate: { ...frameRate } });
  project.target = { id, loudness, captions };
}

/** Overrides what a target asks for. */
export function changeTarget(
  project: Project,
  change: { loudness?: number; captions?: CaptionNeed },
): void {
  Object.assign(project.target, change);
}

/** Sets how fast narration is read, in words a minute, 40 to 400. */
export function setWordsPerMinute(project: Project, wordsPerMinute: number): void {
  project.script.wordsPerMinute = Math.min(400, Math.max(40, Math.round(wordsPerMinute)));
}
