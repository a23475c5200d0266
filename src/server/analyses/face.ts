import { byTool, foundOrNot } from './by-tool';

/** Where the presenter's face is in a recording, for most of the time. */
export const face = byTool('face', { says: 'Looking for the face', confidence: foundOrNot });

/** The same, and how it moves about from beginning to end. */
export const facePath = byTool('face', {
  ...{ says: 'Following the face', more: ['follow'], confidence: foundOrNot },
});
