import type { InFootage, InOutput, Size } from '../scale/rect';
import { readNumberSetting } from '../schema/setting';
import { same } from '../schema/same';
import { builtInOf, LAYOUT_KINDS, LAYOUTS } from './built-in';
import { WHOLE_BOX, type Box, type Layout, type PresenterBox } from './model';
import { PresenterPlacement } from './placement';
import { aspectOf, placePresenter } from './rectangles';

const { size: SIZE, margin: MARGIN } = PresenterPlacement.properties;

/** A value on the steps of its setting, within its bounds. */
function settled(schema: typeof SIZE, value: number): number {
  const { min, max, step } = readNumberSetting(schema);
  const steps = Math.round(value / step);
  // Without the remains of binary fractions.
  return Math.min(max, Math.max(min, Number((steps * step).toFixed(6))));
}

/**
 * Where the presenter stands after their inset was moved: in the corner that its middle is nearest
 * to, as far from the edges as the nearer one.
 *
 * @param box the inset where it was moved to, in frame pixels
 * @param frame size of the picture in frame pixels
 */
export function movedInset(
  box: InOutput,
  frame: Size,
): Pick<PresenterPlacement, 'corner' | 'margin'> {
  const left = box.x + box.width / 2 < frame.width / 2;
  const top = box.y + box.height / 2 < frame.height / 2;
  const across = left ? box.x : frame.width - box.x - box.width;
  const down = top ? box.y : frame.height - box.y - box.height;
  return {
    corner: `${top ? 'top' : 'bottom'}-${left ? 'left' : 'right'}`,
    margin: settled(MARGIN, Math.min(across, down) / frame.height),
  };
}

/**
 * The size of the presenter's inset for a height in frame pixels.
 *
 * @param frame size of the picture in frame pixels
 */
export const sizedInset = (height: number, frame: Size): Pick<PresenterPlacement, 'size'> => ({
  size: settled(SIZE, height / frame.height),
});

const BOTH = { screen: true, presenter: true };

/** What a layout is called that somebody set by hand. */
const BY_HAND = 'By hand';

/**
 * The box of the presenter in a layout, or where the project places them if it has none: what is
 * seen stays the same, and from there the box is moved.
 *
 * @param placed where the project places the presenter
 * @param area the part of the presenter's recording that counts as the whole, in footage pixels
 * @param frame size of the picture in frame pixels
 */
export function presenterBoxOf(
  { presenter }: Layout,
  placed: PresenterPlacement,
  area: InFootage,
  frame: Size,
): PresenterBox {
  if (presenter && presenter !== 'placed') return presenter;
  const inset = { name: '', background: null, screen: null, presenter: 'placed' } as const;
  const { destination } = placePresenter({ ...inset, alone: 'stay' }, BOTH, placed, area, frame)!;
  // An inset that is larger than the picture reaches beyond it; a box does not.
  const span = (start: number, length: number, whole: number) => {
    const size = Math.min(1, length / whole);
    return { start: Math.min(Math.max(0, start / whole), 1 - size), size };
  };
  const across = span(destination.x, destination.width, frame.width);
  const down = span(destination.y, destination.height, frame.height);
  return {
    box: { x: across.start, y: down.start, width: across.size, height: down.size },
    shape: placed.shape,
    ...(placed.shape === 'own' && placed.path ? { path: placed.path } : {}),
    feather: placed.feather,
    center: null,
    ...(aspectOf(placed.shape) ? { crop: placed.crop } : {}),
    ring: placed.ring.width > 0 ? { ...placed.ring } : null,
    ...(placed.shadow > 0 ? { shadow: placed.shadow } : {}),
    ...(placed.reflection ? { reflection: placed.reflection } : {}),
  };
}

/** One that was changed from a built-in layout no longer has its name. */
function named(layout: Layout): Layout {
  const borrowed = LAYOUT_KINDS.some((kind) => LAYOUTS[kind].name === layout.name);
  return borrowed && !builtInOf(layout) ? { ...layout, name: BY_HAND } : layout;
}

/** A layout with its screen in another box; null hides the screen. */
export const withScreenBox = (layout: Layout, box: Box | null): Layout =>
  named({ ...layout, screen: box && { ...layout.screen, box } });

/** A layout with its presenter in a box; null shows none. */
export const withPresenterBox = (layout: Layout, presenter: PresenterBox | null): Layout =>
  named({ ...layout, presenter });

/**
 * A layout to begin with by hand: screen and presenter as they are seen now, each in a box; one that
 * the layout hides comes back, the screen whole and the presenter where the project places them.
 */
export function byHand(
  layout: Layout,
  placed: PresenterPlacement,
  area: InFootage,
  frame: Size,
): Layout {
  const presenter = presenterBoxOf(layout, placed, area, frame);
  const screen = layout.screen ?? { box: WHOLE_BOX };
  // A presenter who has the whole picture would leave nothing to be seen of the screen.
  const covers = layout.screen === null && same(presenter.box, WHOLE_BOX);
  const usual = { ...layout, presenter: 'placed' } as const;
  return {
    ...layout,
    name: BY_HAND,
    screen,
    presenter: covers ? presenterBoxOf(usual, placed, area, frame) : presenter,
    alone: 'stay',
  };
}
