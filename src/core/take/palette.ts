/**
 * Colours for what is drawn live: told apart on light and dark ground, by those who see red and
 * green alike too.
 */
export const LIVE_COLORS = [
  ['red', '#c2412d'],
  ['teal', '#0e6b63'],
  ['amber', '#d99a1c'],
  ['blue', '#2f6fb0'],
  ['ink', '#1e2a32'],
  ['white', '#ffffff'],
] as const;

/** Widths of live lines as shares of the recording's height. */
export const LIVE_WIDTHS = [
  ['thin', 0.004],
  ['medium', 0.007],
  ['thick', 0.013],
] as const;
/** A marker pen is this much wider than a pen. */
export const MARKER_FACTOR = 4;
/** Letters as a share of the frame's height. */
export const LIVE_LETTERS = 0.035;
