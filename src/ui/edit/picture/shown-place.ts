import { layOutText } from '@/compositor/text-box';
import type { CalloutScene } from '@/core/callout/kind';
import { kindOf } from '@/core/callout/kinds';
import type { WordsMark } from '@/core/frame/mark';
import type { Callout } from '@/core/project/model';
import { middleOf, type InOutput, type PointInOutput } from '@/core/scale/rect';

/** What the page has of the Picture's typeface. */
const FAMILY = '"Atkinson Hyperlegible Next Variable"';

let ruler: CanvasRenderingContext2D | null = null;

/** How wide a line is in the letters of the page, which are those of the Picture. */
function measure(font: string, text: string): number {
  ruler ??= document.createElement('canvas').getContext('2d')!;
  ruler.font = font;
  return ruler.measureText(text).width;
}

/** A place in pixels of a scene, and the point about which it is turned with its callout. */
interface ShownPlace {
  readonly box: InOutput;
  readonly about: PointInOutput;
}

/**
 * Where the box of a callout's text stands before it is turned, or what a lens shows, in pixels of
 * the scene; null where it has none.
 */
export function shownPlace(callout: Callout, on: CalloutScene): ShownPlace | null {
  const letters = { measure, family: () => FAMILY };
  const marks = kindOf(callout).marks(callout, { ...on, presence: 1, drawn: 1 });
  for (const layer of marks) {
    if (layer.kind === 'video')
      return { box: layer.destination, about: middleOf(layer.destination) };
    if (layer.kind === 'drawing' && layer.mark.kind === 'words')
      return {
        box: layOutText(layer.mark satisfies WordsMark, on.output, letters),
        about: layer.mark.tip,
      };
  }
  return null;
}
