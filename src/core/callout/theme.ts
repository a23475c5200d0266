import type { Static } from '@sinclair/typebox';
import { assertNever } from '../assert-never';
import { strict } from '../schema/parts';
import { colorSetting, defaultsOf, numberSetting } from '../schema/setting';
import { cornerSetting, weightSetting } from './kinds/words';
import type { Callout } from './model';

/*
 * What the callouts of a project have in common. Each has its settings itself; the theme gives new
 * ones theirs, and a change of it goes to all that still have what it said before. What was set on
 * one of them by hand stays.
 */

export const Theme = strict({
  line: colorSetting('Lines', '#c2412d'),
  fill: colorSetting('Fill', '#8e3f66'),
  ink: colorSetting('Text', '#ffffff'),
  marker: colorSetting('Marker pen', '#f2c230'),
  width: numberSetting({
    label: 'Line width',
    description: 'In frame pixels.',
    unit: 'px',
    min: 1,
    max: 60,
    step: 1,
    fallback: 6,
    usual: [1, 24],
  }),
  weight: weightSetting,
  corner: cornerSetting,
});
export type Theme = Static<typeof Theme>;

/** The width of lines in a new project, as a share of the frame's height. */
const LINE = 0.006;

/** The theme of a new project whose frame is so high, in pixels. */
export const newTheme = (height: number): Theme => ({
  ...defaultsOf(Theme),
  width: Math.max(1, Math.round(height * LINE)),
});

type Themed = Readonly<Record<string, string | number>>;

/** What a theme says of a kind of callout, by the names of its settings. */
function themeOf(callout: Callout, theme: Theme, ratio: number): Themed {
  const lines = { color: theme.line, width: Math.max(1, Math.round(theme.width * ratio)) };
  const words = { fill: theme.fill, ink: theme.ink };
  switch (callout.kind) {
    case 'arrow':
    case 'line':
    case 'box':
    case 'ellipse':
      return lines;
    case 'stroke':
      return callout.tool === 'marker' ? { color: theme.marker } : lines;
    case 'highlight':
      return { color: theme.marker };
    case 'text':
      return { ...words, weight: theme.weight, corner: theme.corner };
    case 'note':
      return { ...words, weight: theme.weight };
    case 'count':
      return words;
    case 'keycaps':
    case 'cover':
    case 'lens':
    case 'link':
    case 'picture':
    case 'spotlight':
      return {};
    default:
      return assertNever(callout);
  }
}

/** A new callout as a theme says; `ratio` is pixels of what it stands on for one of the frame's. */
export const inTheme = <C extends Callout>(callout: C, theme: Theme, ratio: number): C => ({
  ...callout,
  ...themeOf(callout, theme, ratio),
});

/**
 * What becomes of a callout when a theme takes the place of another: it goes along in all that was
 * as the one before said.
 */
export function rethemed(
  callout: Callout,
  before: Theme,
  after: Theme,
  ratio: number,
): Partial<Callout> {
  const was = themeOf(callout, before, ratio);
  const now = callout as unknown as Themed;
  return Object.fromEntries(
    Object.entries(themeOf(callout, after, ratio)).filter(([name]) => now[name] === was[name]),
  );
}
