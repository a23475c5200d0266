import type { EditorState } from '../session/state';

/** What is said below the Picture of how it is shown now, or of what a press does; null for nothing. */
export function noteOf({ drawing, selection, view, softText }: EditorState): string | null {
  if (drawing === 'path') return 'Draw the way of the pointer; Escape leaves it';
  if (selection?.kind === 'path')
    return 'The whole screen is shown while you mend the pointer’s path';
  if (drawing === 'framing') return 'Draw a rectangle over what is to be seen; Escape leaves it';
  if (drawing && typeof drawing === 'object')
    return 'Drag from where it begins to where it ends; Escape leaves it';
  if (drawing) return 'Draw on the Picture, line after line; Escape puts the pen away';
  if (view.whole) return 'The whole screen is shown while you set the framing';
  if (view.presenter === 'matte') return 'Matte: white stays, black goes';
  if (view.presenter) return 'Press the background to pick its colour';
  return softText ? 'Magnified text as it was recorded; press again to rebuild it' : null;
}
