import { kindOf } from '@/core/callout/kinds';
import { lookKindOf } from '@/core/pointer/looks';
import type { Callout, PointerSpan, Transition } from '@/core/project/model';

/** What the transitions are called. */
export const TRANSITION_NAMES: Readonly<Record<Transition['kind'], string>> = {
  dissolve: 'Dissolve',
  fade: 'Fade through a colour',
  slide: 'Slide',
  push: 'Push',
};

/** What a callout is called on the timeline. */
export const calloutName = (callout: Callout): string => kindOf(callout).title(callout);

/** What a stretch of pointer looks is called on the timeline. */
export const pointerName = ({ looks }: Pick<PointerSpan, 'looks'>): string =>
  looks.map((look) => lookKindOf(look).label.toLowerCase()).join(', ') || 'pointer';

/** A word as the first of a heading. */
export const capital = (word: string): string => word.charAt(0).toUpperCase() + word.slice(1);
