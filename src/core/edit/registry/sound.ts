import { Type } from '@sinclair/typebox';
import { Decibels, Time } from '../../schema/parts';
import {
  clearLevelPoints,
  detachAudio,
  moveLevelPoint,
  removeLevelPoint,
  setFades,
  setLevelPoint,
  silenceRange,
} from '../levels';
import { args, defineEdit, Instant, LaneIds } from './kind';

const clipId = Type.String();
const index = Type.Integer({ minimum: 0 });

/** Levels, fades, and sound on its own lane. */
export const SOUND_EDITS = {
  'set-level-point': defineEdit({
    label: 'Level point',
    args: args({
      clipId,
      time: Instant,
      level: Decibels,
      reach: { ...Time, description: 'A point so near, in ticks, is moved instead.' },
    }),
    run: (p, { clipId, time, level, reach }) => setLevelPoint(p, clipId, time, level, reach),
  }),
  'move-level-point': defineEdit({
    label: 'Level point',
    args: args({ clipId, index, time: Instant, level: Decibels }),
    run: (p, { clipId, index, time, level }) => moveLevelPoint(p, clipId, index, time, level),
  }),
  'remove-level-point': defineEdit({
    label: 'Remove level point',
    args: args({ clipId, index }),
    run: (p, { clipId, index }) => removeLevelPoint(p, clipId, index),
  }),
  'clear-level-points': defineEdit({
    label: 'Remove level points',
    args: args({ clipId }),
    run: (p, { clipId }) => clearLevelPoints(p, clipId),
  }),
  'set-fades': defineEdit({
    label: 'Fade',
    args: args({ clipId, fadeIn: Type.Number(), fadeOut: Type.Number() }),
    run: (p, { clipId, fadeIn, fadeOut }) => setFades(p, clipId, fadeIn, fadeOut),
  }),
  'silence-range': defineEdit({
    label: 'Silence range',
    args: args({ start: Instant, end: Instant, laneIds: LaneIds }),
    run: (p, { laneIds, ...range }) => silenceRange(p, range, laneIds),
  }),
  'detach-audio': defineEdit({
    label: 'Sound on its own lane',
    args: args({ clipId }),
    run: (p, { clipId }, { sources, newId }) => detachAudio(p, sources, clipId, newId),
  }),
} as const;
