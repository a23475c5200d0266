import { formatColor, yuvToRgb } from './color';

export interface WallEstimate {
  readonly color: string;
  readonly tolerance: number;
  readonly softness: number;
}

/** Chroma planes of a picture, and its luma, as decoders give them (4:2:0). */
export interface ChromaPicture {
  readonly y: Uint8Array;
  readonly u: Uint8Array;
  readonly v: Uint8Array;
  readonly width: number;
  readonly height: number;
}

/**
 * Finds the wall's colour and how far it spreads from the border of a picture,
 * where a presenter seldom stands: the most frequent chroma there, then the
 * distance that nearly all of the pixels around it keep. The answer is null when the border
 * has no one strong colour.
 */
export function estimateWall({ y, u, v, width, height }: ChromaPicture): WallEstimate | null {
  const cw = (width + 1) >> 1;
  const ch = (height + 1) >> 1;
  const counts = new Uint32Array(64 * 64);
  const border: number[] = [];
  for (let row = 0; row < ch; row++)
    for (let column = 0; column < cw; column++) {
      const edge = column < cw * 0.15 || column >= cw * 0.85 || row < ch * 0.08;
      if (!edge || row > ch * 0.75) continue;
      const i = row * cw + column;
      border.push(i);
      counts[(u[i]! >> 2) * 64 + (v[i]! >> 2)]!++;
    }
  const peak = counts.reduce((best, n, i) => (n > counts[best]! ? i : best), 0);
  const peakU = ((peak / 64) | 0) * 4 + 2;
  const peakV = (peak % 64) * 4 + 2;
  const near = border.filter((i) => Math.hypot(u[i]! - peakU, v[i]! - peakV) < 24);
  if (near.length < border.length * 0.4 || Math.hypot(peakU - 128, peakV - 128) < 14) return null;
  const mean = (pick: (i: number) => number) => near.reduce((sum, i) => sum + pick(i), 0) / near.length;
  const mu = mean((i) => u[i]!);
  const mv = mean((i) => v[i]!);
  const my = mean((i) => y[((i / cw) | 0) * 2 * width + (i % cw) * 2]!);
  const distances = near.map((i) => Math.hypot(u[i]! - mu, v[i]! - mv)).sort((a, b) => a - b);
  const spread = distances[Math.floor(distances.length * 0.99)]!;
  const chroma = Math.hypot(mu - 128, mv - 128);
  return {
    color: formatColor(yuvToRgb([my, mu, mv])),
    tolerance: Math.round(Math.min(spread + 4, chroma * 0.65)),
    softness: Math.round(Math.max(8, Math.min(24, chroma * 0.35))),
  };
}
