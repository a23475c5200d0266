/** The lists of things that stand beside the clips, each with a start and an end. */
export const SPAN_LISTS = ['framings', 'layouts', 'pointer', 'callouts'] as const;
export type SpanList = (typeof SPAN_LISTS)[number];

/**
 * Callouts and looks of the pointer may lie over each other; of the others one counts at a time.
 */
export const mayOverlap = (list: SpanList): boolean => list === 'callouts' || list === 'pointer';
