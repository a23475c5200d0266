import type { MediaFacts } from '@/contract/footage';
import type { FrameRate } from '@/core/time/ticks';

/**
 * FFmpeg filters that bring a picture to BT.709, limited range, 4:2:0; empty when it is so already.
 */
export function colorFilters({ convertColor }: Pick<MediaFacts, 'convertColor'>): string[] {
  if (!convertColor) return ['format=yuv420p'];
  const { matrix, range } = convertColor;
  return [
    `scale=in_color_matrix=${matrix}:in_range=${range}:out_color_matrix=bt709:out_range=limited:flags=accurate_rnd+full_chroma_int+bicubic`,
    'format=yuv420p',
  ];
}

/**
 * A frame counts as there this many seconds before its own time, since containers
 * round times to a millisecond: without it a frame of 33.33 ms stamped 34 would come one late.
 */
const EARLY = 0.002;

/**
 * Filters that show, at each instant `start + n / rate * speed` of a recording, the last frame that
 * began by then; whatever the rhythm of the source.
 */
export const timingFilters = (startSeconds: number, rate: FrameRate, speed = 1): string[] => [
  speed === 1 ? `setpts=PTS-${EARLY}/TB` : `setpts=(PTS-${EARLY}/TB)/${speed}`,
  `fps=fps=${rate.num}/${rate.den}:start_time=${(startSeconds / speed).toFixed(6)}:round=up`,
];

/** Output options that say what the colours are. */
export const COLOR_TAGS = [
  '-colorspace',
  'bt709',
  '-color_primaries',
  'bt709',
  '-color_trc',
  'bt709',
  '-color_range',
  'tv',
] as const;
