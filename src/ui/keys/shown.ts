const NAMES: readonly (readonly [RegExp, string])[] = [
  [/\bMod\b/, 'Ctrl'],
  [/\bArrowLeft\b/, '←'],
  [/\bArrowRight\b/, '→'],
  [/\bArrowUp\b/, '↑'],
  [/\bArrowDown\b/, '↓'],
];

/** A key as it is printed: `Mod+ArrowLeft` is `Ctrl+←`. */
export const shownKeys = (keys: string): string =>
  NAMES.reduce((shown, [name, sign]) => shown.replace(name, sign), keys);
