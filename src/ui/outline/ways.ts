/** What is done by keys in the Outline and its prompter, in words. */
export const OUTLINE_WAYS = [
  ['New step below', 'Alt+Enter'],
  ['Split the step in its narration', 'Ctrl+Enter'],
  ['Join with the step before', 'Backspace at the start of its narration'],
  ['Move the step', 'Alt+↑, Alt+↓'],
  ['Undo, redo', 'Ctrl+Z, Ctrl+Shift+Z'],
  ['Prompter: roll or hold', 'Space'],
  ['Prompter: faster, slower', '↑, ↓'],
  ['Prompter: mirrored', 'M'],
] as const;
