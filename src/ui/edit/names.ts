import type { Callout, Transition } from '@/core/project/model';

/** What the transitions are called. */
export const TRANSITION_NAMES: Readonly<Record<Transition['kind'], string>> = {
  dissolve: 'Dissolve',
  fade: 'Fade through a colour',
  slide: 'Slide',
  push: 'Push',
};

/** What a callout is called on the timeline. */
export function calloutName(callout: Callout): string {
  switch (callout.kind) {
    case 'text':
      return callout.text;
    case 'cover':
      return 'cover';
    case 'stroke':
      return callout.tool === 'marker' ? 'marker pen' : 'pen';
    case 'shape':
      return callout.shape;
  }
}
