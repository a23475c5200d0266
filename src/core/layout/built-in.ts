import { same } from '../schema/same';
import { WHOLE_BOX, type Layout } from './model';

export const LAYOUT_KINDS = ['corner', 'side', 'presenter', 'screen'] as const;
/** A layout that every project has. */
export type LayoutKind = (typeof LAYOUT_KINDS)[number];

/** The layouts that every project has. The first holds wherever nothing else is said. */
export const LAYOUTS: Readonly<Record<LayoutKind, Layout>> = {
  corner: {
    name: 'Presenter in a corner',
    background: null,
    screen: { box: WHOLE_BOX },
    presenter: 'placed',
    alone: 'stay',
  },
  side: {
    name: 'Side by side',
    background: null,
    screen: { box: { x: 0.02, y: 0.165, width: 0.67, height: 0.67 } },
    presenter: {
      box: { x: 0.71, y: 0.165, width: 0.27, height: 0.67 },
      shape: 'rectangle',
      feather: 0,
      center: null,
      ring: null,
    },
    alone: 'whole',
  },
  presenter: {
    name: 'Presenter only',
    background: null,
    screen: null,
    presenter: {
      box: WHOLE_BOX,
      shape: 'rectangle',
      feather: 0,
      center: { x: 0.5, y: 0.5 },
      ring: null,
    },
    alone: 'stay',
  },
  screen: {
    name: 'Screen only',
    background: null,
    screen: { box: WHOLE_BOX },
    presenter: null,
    alone: 'stay',
  },
};

/** The layout that holds where a project says nothing. */
export const USUAL_LAYOUT: Layout = LAYOUTS.corner;

/** Which of the built-in layouts one is, whatever its name; null for one of a project's own. */
export function builtInOf(layout: Layout): LayoutKind | null {
  return LAYOUT_KINDS.find((kind) => same({ ...LAYOUTS[kind], name: layout.name }, layout)) ?? null;
}
