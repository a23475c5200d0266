import { UNPOSED } from '../callout/keyframes';
import { createProject } from '../project/create';
import type { Project } from '../project/model';
import type { FootageFacts, Role, Sources } from '../project/sources';
import { frameDuration, frameStart, rateFromNumber, secondsToTicks } from '../time/ticks';
import { addStep } from './outline';
import { placeFootage } from './place';
import { addSpan } from './spans';

/** Footage facts for tests; everything can be changed. */
export const facts = (
  id: string,
  role: Role,
  seconds: number,
  more: Partial<FootageFacts> = {},
): FootageFacts => ({
  id,
  name: `${id}.mp4`,
  kind: 'video',
  role,
  width: 2560,
  height: 1440,
  frameRate: rateFromNumber(30),
  duration: secondsToTicks(seconds),
  hasVideo: true,
  hasAudio: true,
  ...more,
});

/** Ids that count up. */
export function counter(): () => string {
  let n = 0;
  return () => `id-${++n}`;
}

export const SOURCES: Sources = {
  footage: {
    screen: facts('screen', 'screen', 60),
    camera: facts('camera', 'presenter', 40, { width: 1280, height: 720 }),
    still: facts('still', 'still', 0, {
      kind: 'image',
      duration: 0,
      hasAudio: false,
      frameRate: null,
    }),
    music: facts('music', 'music', 90, {
      kind: 'audio',
      hasVideo: false,
      width: 0,
      height: 0,
      frameRate: null,
    }),
  },
  pointers: {},
};

/** An empty project that may be changed in place. */
export const emptyProject = (): Project =>
  structuredClone(createProject(1920, 1080, rateFromNumber(30)));

const RATE = rateFromNumber(30);
export const FRAME = frameDuration(RATE);
export const frame = (n: number) => frameStart(n, RATE);

/**
 * A project with a presenter (with voice), a screen (with sound), music, and all that stands beside
 * them.
 */
export function demoProject(newId: () => string): Project {
  const project = emptyProject();
  placeFootage(project, SOURCES.footage.camera!, 0, newId);
  placeFootage(project, SOURCES.footage.screen!, frame(42), newId);
  placeFootage(project, SOURCES.footage.music!, 0, newId);
  for (let i = 0; i < 6; i++) {
    addSpan(project, 'callouts', {
      id: newId(),
      start: frame(i * 200),
      end: frame(i * 200 + 90),
      anchor: { to: 'footage', footageId: 'screen' },
      ...UNPOSED,
      kind: 'cover',
      way: 'blur',
      color: '#1e2a32',
      rect: { x: 0, y: 0, width: 50, height: 50 },
      strength: 8,
    });
    addSpan(project, 'framings', {
      id: newId(),
      start: frame(i * 250 + 60),
      end: frame(i * 250 + 240),
      rampIn: FRAME * 30,
      rampOut: FRAME * 30,
      footageId: 'screen',
      rect: { x: 0, y: 0, width: 1920, height: 1080 },
      endRect: null,
      pinned: false,
      reason: '',
    });
    addStep(project, {
      id: newId(),
      start: frame(i * 220),
      title: `Step ${i}`,
      narration: '',
      action: '',
      notes: '',
    });
  }
  return project;
}
