import { createProject } from '../project/create';
import type { Project } from '../project/model';
import type { FootageFacts, Role, Sources } from '../project/sources';
import { rateFromNumber, secondsToTicks } from '../time/ticks';

/** Footage facts for tests; everything can be changed. */
export const facts = (id: string, role: Role, seconds: number, more: Partial<FootageFacts> = {}): FootageFacts => ({
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
    music: facts('music', 'music', 90, { kind: 'audio', hasVideo: false, width: 0, height: 0, frameRate: null }),
  },
  pointers: {},
};

/** An empty project that may be changed in place. */
export const emptyProject = (): Project => structuredClone(createProject(1920, 1080, rateFromNumber(30)));
