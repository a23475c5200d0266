import type { Size } from '../scale/rect';
import type { Box, Layout, PresenterBox } from './model';

const box = (x: number, y: number, width: number, height: number): Box => ({ x, y, width, height });

/** A presenter who fills a box, from edge to edge. */
const filling = (of: Box): PresenterBox => ({
  ...{ box: of, shape: 'rectangle', feather: 0, center: null, ring: null },
});

const layout = (
  name: string,
  screen: Box,
  presenter: Layout['presenter'],
  alone: Layout['alone'] = 'stay',
): Layout => ({ name, background: null, screen: { box: screen }, presenter, alone });

/** For pictures that are wider than high. */
const WIDE: readonly Layout[] = [
  layout(
    'Half and half',
    box(0.02, 0.26, 0.48, 0.48),
    filling(box(0.52, 0.26, 0.46, 0.48)),
    'whole',
  ),
  layout(
    'Presenter at the left',
    box(0.31, 0.165, 0.67, 0.67),
    filling(box(0.02, 0.165, 0.27, 0.67)),
    'whole',
  ),
  layout('Presenter large, in front', box(0, 0, 1, 1), {
    ...filling(box(0.62, 0.2, 0.38, 0.8)),
    clear: true,
  }),
  {
    ...layout('Screen in a frame', box(0.07, 0.07, 0.86, 0.86), 'placed'),
    screen: { box: box(0.07, 0.07, 0.86, 0.86), rounding: 0.025 },
  },
];

/** For upright and square pictures: a recording of a usual screen is as wide as they are. */
const UPRIGHT: readonly Layout[] = [
  layout(
    'Screen above the presenter',
    box(0, 0.06, 1, 0.33),
    filling(box(0, 0.41, 1, 0.59)),
    'whole',
  ),
  layout('Presenter above the screen', box(0, 0.61, 1, 0.33), filling(box(0, 0, 1, 0.59)), 'whole'),
];

/**
 * Layouts to begin with beside those that every project has, for a picture's shape. Once set they
 * are a person's own, as if set by hand.
 *
 * @param frame size of the picture, in any unit
 */
export const arrangementsFor = ({ width, height }: Size): readonly Layout[] =>
  width > height ? WIDE : UPRIGHT;
