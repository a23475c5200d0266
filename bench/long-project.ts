import { UNPOSED } from '@/core/callout/keyframes';
import { frame } from '@/core/edit/fixture';
import { createClip } from '@/core/project/create';
import type { Project } from '@/core/project/model';

/** How a long project is made up. */
export interface LongShape {
  readonly clips: number;
  readonly footageId: string;
  /** Frames from the start of a clip to the next one's. */
  readonly each: number;
  /** Frames of the recording from where a clip begins in it to where the next one does. */
  readonly apart: number;
  /** Frames that each fifth clip leaves empty behind it. */
  readonly gap: number;
}

/** A project with so many clips on three linked lanes, and a cover for each six of them. */
export function longProject(base: Project, shape: LongShape): Project {
  const { clips, footageId, each, apart, gap } = shape;
  const project = structuredClone(base);
  for (const kind of ['presenter', 'screen', 'voice'] as const)
    project.lanes.find((lane) => lane.kind === kind)!.clips = Array.from(
      { length: Math.floor(clips / 3) },
      (_, i) =>
        createClip({
          id: `${kind}${i}`,
          footageId,
          start: frame(i * each),
          duration: frame(each - (i % 5 === 4 ? gap : 0)),
          source: frame(i * apart),
          link: `take${i}`,
        }),
    );
  project.callouts = Array.from({ length: Math.round(clips / 6) }, (_, i) => ({
    id: `c${i}`,
    start: frame(i * each * 2),
    end: frame(i * each * 2 + 90),
    anchor: { to: 'footage', footageId },
    ...UNPOSED,
    kind: 'cover',
    way: 'blur',
    color: '#1e2a32',
    rect: { x: 0, y: 0, width: 9, height: 9 },
    strength: 9,
  }));
  return project;
}

/** The same as somebody works on it: with the presenter off, and a step for each thirty clips. */
export function longWork(base: Project, shape: LongShape): Project {
  const project = longProject(base, shape);
  project.lanes.find(({ kind }) => kind === 'presenter')!.off = true;
  project.steps = Array.from({ length: Math.ceil(shape.clips / 30) }, (_, i) => ({
    id: `s${i}`,
    start: frame(i * 10 * shape.each),
    title: `Step ${i + 1}`,
    narration: 'Choose the small electric kiln, set the ramp, and book the firing for the week.',
    action: '',
    notes: '',
  }));
  return project;
}
