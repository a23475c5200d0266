import { layOutText } from '@/compositor/text-box';
import type { CalloutScene } from '@/core/callout/kind';
import { kindOf } from '@/core/callout/kinds';
import type { WordsMark } from '@/core/frame/mark';
import type { Callout } from '@/core/project/model';
import type { InOutput } from '@/core/scale/rect';

let ruler: CanvasRenderingContext2D | null = null;

/** How wide a line is in the letters of the page, which are those of the Picture. */
function measure(font: string, text: string): number {
  ruler ??= document.createElement('canvas').getContext('2d')!;
  const size = /[\d.]+px/.exec(font)?.[0] ?? '16px';
  ruler.font = `600 ${size} "Atkinson Hyperlegible Next Variable"`;
  return ruler.measureText(text).width;
}

/**
 * Where the box of a callout's text stands, or the picture that it shows, in pixels of the scene;
 * null where it has none.
 */
export function shownPlace(callout: Callout, on: CalloutScene): InOutput | null {
  const marks = kindOf(callout).marks(callout, { ...on, presence: 1, drawn: 1 });
  for (const layer of marks) {
    if (layer.kind === 'video') return layer.destination;
    if (layer.kind === 'drawing' && layer.mark.kind === 'words')
      return layOutText(layer.mark satisfies WordsMark, on.output, { measure });
  }
  return null;
}
