import { Type, type Static } from '@sinclair/typebox';
import { nullable, strict } from '../schema/parts';
import { defaultsOf, numberSetting, shareSetting, switchSetting } from '../schema/setting';

/** Whatever a taste says, no view rests for less, in seconds. */
export const SHORTEST_HOLD = 1.5;
/** A view that magnifies less than this is not worth moving for. */
export const LEAST_MAGNIFICATION = 1.12;
/** A view arrives this long before what it is for, and stays this long after it, in seconds. */
export const LEAD = 0.5;
export const TAIL = 0.9;

/** How a plan of framings is to be: what a person can set about it. */
export const Taste = strict({
  lively: shareSetting('Calm to lively', 0.65, {
    description: '0: the view moves seldom; 1: wherever something gains by it.',
  }),
  hold: numberSetting({
    label: 'Shortest hold',
    description: 'No view rests for less.',
    unit: 's',
    min: SHORTEST_HOLD,
    max: 10,
    step: 0.1,
    fallback: 1.8,
  }),
  margin: shareSetting('Room around', 0.14, {
    description: 'Beside what is looked at, on each side, as a share of the view.',
    max: 0.4,
  }),
  between: switchSetting('Whole screen where nothing happens', true),
  limit: nullable(Type.Union([Type.Number({ minimum: 1, maximum: 20 }), Type.Literal('rebuilt')]), {
    default: null,
    description:
      'The closest view: a magnification, as far as text is rebuilt, or (null) the sharp limit.',
  }),
});
export type Taste = Static<typeof Taste>;

/** The taste of a plan for which nothing was said. */
export const USUAL_TASTE: Taste = defaultsOf(Taste);
