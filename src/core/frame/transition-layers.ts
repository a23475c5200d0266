import { ease } from '../framing/path';
import type { Transition } from '../project/model';
import type { Size } from '../scale/rect';
import { filled, type Layer, type VideoLayer } from './plan';

/**
 * The layers of a clip that goes over into another: what each shows, brought together.
 *
 * @param share how much of the second is seen, 0 to 1
 */
export function transitionLayers(
  output: Size,
  from: Layer[],
  to: Layer[],
  transition: Transition,
  share: number,
): Layer[] {
  const mix = (
    a: Layer[],
    b: Layer[],
    amount: number,
    motion: (Layer & { kind: 'mix' })['motion'] = null,
  ): Layer[] => [{ kind: 'mix', from: a, to: b, amount, motion }];
  // An inset neither moves through the picture nor fills it with colour.
  const whole = [...from, ...to].some(
    (layer) => layer.kind === 'video' && !layer.mask && !layer.key && fills(layer, output),
  );
  if (transition.kind === 'fade') {
    const between: Layer[] = whole ? [filled(output, transition.color)] : [];
    if (!from.length) return mix(between, to, share);
    if (!to.length) return mix(from, between, share);
    return share < 0.5 ? mix(from, between, share * 2) : mix(between, to, share * 2 - 1);
  }
  if (transition.kind === 'dissolve' || !whole) return mix(from, to, share);
  return mix(from, to, ease(share), { kind: transition.kind, from: transition.from });
}

/**
 * Whether a layer reaches from side to side or from top to bottom: then it is the picture, and not
 * an inset.
 */
const fills = ({ destination: d }: VideoLayer, { width, height }: Size): boolean =>
  d.width >= width || d.height >= height;
