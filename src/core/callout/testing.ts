import { UNPOSED } from './keyframes';
import { counter, emptyProject, SOURCES } from '../edit/fixture';
import { placeFootage } from '../edit/place';
import { addSpan } from '../edit/spans';
import type { Callout, Project } from '../project/model';
import { secondsToTicks } from '../time/ticks';
import type { Anchor } from './anchor';
import { kindOf, KINDS, type CalloutKindName } from './kinds';
import { pictureAt } from './kinds/picture';
import { USUAL_MOTION } from './motion';

/** The kinds of callouts. */
export const NAMES = Object.keys(KINDS) as CalloutKindName[];

/** Where callouts are made: on the screen recording, in a frame of 1080p. */
export const SPOT = {
  at: { x: 900, y: 500 },
  size: SOURCES.footage.screen!,
  frame: { width: 1920, height: 1080 },
};

/** What stands on the screen recording. */
export const FOOTAGE: Anchor = { to: 'footage', footageId: 'screen' };

/** When callouts that are made here go, in ticks. */
export const END = secondsToTicks(8);

/** What can't be made at a spot without more: a line drawn by hand, a still of the footage. */
const GIVEN = {
  stroke: {
    ...{ kind: 'stroke', tool: 'pen', width: 6, color: '#c2412d', ...USUAL_MOTION },
    points: [
      [0, 10, 20],
      [300, 400, 260],
    ],
  },
  picture: pictureAt(SPOT, 'still', { width: 640, height: 480 }),
} as const;

/** A callout of a kind as it is made. */
export const made = (kind: CalloutKindName, anchor: Anchor = FOOTAGE): Callout =>
  ({
    ...(kindOf({ kind }).create?.(SPOT) ?? GIVEN[kind as keyof typeof GIVEN]),
    ...{ id: 'c', start: 0, end: END, anchor, ...UNPOSED },
  }) as Callout;

/** A project that shows the screen recording with a callout. */
export function withCallout(callout: Callout): Project {
  const project = emptyProject();
  placeFootage(project, SOURCES.footage.screen!, 0, counter());
  addSpan(project, 'callouts', callout);
  return project;
}
