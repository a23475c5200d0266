import { Type, type Static } from '@sinclair/typebox';
import { LAYOUT_KINDS } from '../layout/built-in';
import { FootageRect, nullable, oneOf } from '../schema/parts';
import { TRACK_NAMES } from './take';

/** One recording of a take as it was set up. */
export const TrackSetup = Type.Object({
  name: oneOf(TRACK_NAMES),
  type: oneOf(['video', 'audio']),
  label: Type.String({ description: 'The device, as its owner knows it.' }),
  width: Type.Number({ description: 'Pixels; 0 for sound.' }),
  height: Type.Number({ description: 'Pixels; 0 for sound.' }),
  frameRate: Type.Number({ description: 'Most frames a second; 0 for sound.' }),
  sampleRate: Type.Number({ description: 'Samples a second; 0 for pictures.' }),
  channels: Type.Number({ description: '0 for pictures.' }),
});
export type TrackSetup = Static<typeof TrackSetup>;

/** What a take is recorded with, and what of its settings is kept as data. */
export const TakeSetup = Type.Object({
  tracks: Type.Array(TrackSetup),
  area: nullable(FootageRect, {
    description: 'Part of the screen recording that counts as the whole; null for all of it.',
  }),
  gain: Type.Number({ description: 'dB for the voice.' }),
  camera: Type.Object({
    mirror: Type.Boolean(),
    brightness: Type.Number(),
    contrast: Type.Number(),
    area: nullable(FootageRect),
  }),
  hold: nullable(Type.Number(), {
    description: 'Seconds that live drawings stay; null until they are erased.',
  }),
  layout: oneOf(LAYOUT_KINDS, { description: 'Layout at the take’s start.' }),
});
export type TakeSetup = Static<typeof TakeSetup>;
