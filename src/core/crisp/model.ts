/** A convolution in whole numbers, and the PReLU behind it. */
export interface Layer {
  /** Side of its square. */
  readonly size: number;
  readonly inputs: number;
  readonly outputs: number;
  /** By how many bits its sums are brought down, rounding towards minus infinity. */
  readonly shift: number;
  /** What each sum starts with; what rounding takes is in it. */
  readonly biases: Int32Array;
  /** What is left of negative values, in 32768ths; null for the last layer. */
  readonly slopes: Int16Array | null;
  /** By output, row, column, input. */
  readonly weights: Int16Array;
}

/** Values of a sample between the layers. */
export const CHANNELS = 12;
/** Samples to each side that one draws from. */
export const MARGIN = 6;

const SHAPE: readonly Pick<Layer, 'size' | 'inputs' | 'outputs'>[] = [
  { size: 5, inputs: 1, outputs: CHANNELS },
  { size: 3, inputs: CHANNELS, outputs: CHANNELS },
  { size: 3, inputs: CHANNELS, outputs: CHANNELS },
  { size: 3, inputs: CHANNELS, outputs: CHANNELS },
  { size: 3, inputs: CHANNELS, outputs: 4 },
];

/**
 * Reads the layers of the network that doubles luma, as `tools/crisp/export.py` writes them: for
 * each layer the shift, biases, slopes and weights, little-endian. Greys go in as their distance
 * from 126 in 64ths of the network's unit with 12 fractional bits; what comes out is added to
 * 16384ths of a grey.
 *
 * @param text the bytes in base 64
 * @throws RangeError when there are too few bytes or too many
 */
export function readModel(text: string): Layer[] {
  const bytes = Uint8Array.from(atob(text), (letter) => letter.charCodeAt(0));
  const view = new DataView(bytes.buffer);
  let at = 0;
  const whole = () => view.getInt32((at += 4) - 4, true);
  const half = () => view.getInt16((at += 2) - 2, true);
  const layers = SHAPE.map(({ size, inputs, outputs }, i) => {
    const shift = whole();
    const biases = Int32Array.from({ length: outputs }, whole);
    const slopes = i < SHAPE.length - 1 ? Int16Array.from({ length: outputs }, half) : null;
    const weights = Int16Array.from({ length: outputs * size * size * inputs }, half);
    return { size, inputs, outputs, shift, biases, slopes, weights };
  });
  if (at !== bytes.length) throw new RangeError(`The model has ${bytes.length} bytes, not ${at}.`);
  return layers;
}
