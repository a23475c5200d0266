import { MARGIN, type Layer } from '@/core/crisp/model';

/** Sums that are made at once. */
const LANES = 4;

/**
 * Lays a model out for `crispPlane`: for each layer its biases, its slopes (filled up to 32 bytes),
 * and its weights, two inputs for four outputs at a time. A row of the first layer's square is
 * filled up to three pairs. Shifts are apart, as 32-bit numbers.
 */
export function packModel(layers: readonly Layer[]): { model: Uint8Array; shifts: Int32Array } {
  const parts = layers.flatMap(({ biases, slopes, ...layer }) => {
    const bent = new Int16Array(16);
    if (slopes) bent.set(slopes);
    return [bytesOf(biases), ...(slopes ? [bytesOf(bent)] : []), bytesOf(pairs(layer))];
  });
  const model = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    model.set(part, at);
    at += part.length;
  }
  return { model, shifts: Int32Array.from(layers, ({ shift }) => shift) };
}

const bytesOf = ({ buffer, byteOffset, byteLength }: Int32Array | Int16Array) =>
  new Uint8Array(buffer, byteOffset, byteLength);

/** Weights in the order in which the kernel takes them: row, pair of inputs, output, input. */
function pairs({
  size,
  inputs,
  outputs,
  weights,
}: Pick<Layer, 'size' | 'inputs' | 'outputs' | 'weights'>) {
  // Inputs of samples side by side follow each other.
  const row = size * inputs;
  const across = Math.ceil(row / 2);
  const packed = new Int16Array(size * across * 2 * outputs);
  for (let output = 0; output < outputs; output++)
    for (let y = 0; y < size; y++)
      for (let k = 0; k < row; k++) {
        const group = (y * across + (k >> 1)) * outputs + output;
        packed[group * 2 + (k & 1)] = weights[(output * size + y) * row + k]!;
      }
  return packed;
}

/** Bytes that `crispPlane` needs beside a rectangle of so many samples. */
export const crispRoom = (width: number, height: number): number =>
  (width + 2 * MARGIN + 2) * (height + 2 * MARGIN) * 50 + (width + LANES) * 8 + 64;
