import type { Sharpness } from '@/core/scale/sharpness';

/** What is said of how sharp something is seen. */
export const SHARPNESS_WORDS: Readonly<Record<Sharpness, string>> = {
  exact: 'pixel for pixel',
  sharp: 'sharp',
  crisp: 'text rebuilt',
  soft: 'soft',
};
