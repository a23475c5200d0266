import { assertNever } from '@/core/assert-never';
import { rangeOf } from '../session/range';
import type { EditorState, Selection } from '../session/state';

/** Ids of commands that belong together. */
type Ids = readonly string[];

const CLIP: readonly Ids[] = [
  ['split', 'lift', 'ripple'],
  ['copy', 'cut', 'paste'],
  ['trim-start', 'trim-end', 'freeze', 'dissolve', 'fade'],
  ['mute', 'detach', 'link', 'unlink', 'line-up'],
  ['group', 'ungroup', 'open-group'],
];
const NOTHING: readonly Ids[] = [
  ['split-all', 'paste', 'close-gap', 'close-gaps'],
  ['framing', 'callout', 'cover', 'marker'],
  ['layout-corner', 'layout-side', 'layout-presenter', 'layout-screen', 'layout-hand'],
];
const RANGE: readonly Ids[] = [
  ['lift', 'ripple'],
  ['copy', 'cut', 'silence', 'retake'],
  ['range-clear'],
];

/** What applies to something of a kind, as commands that belong together. */
function forKind(kind: NonNullable<Selection>['kind']): readonly Ids[] {
  switch (kind) {
    case 'clip':
      return CLIP;
    case 'framings':
      return [
        ['copy', 'paste', 'lift'],
        ['framing-before', 'framing-align', 'framing-whole'],
      ];
    case 'callouts':
      return [
        ['copy', 'paste', 'lift'],
        ['style-copy', 'style-paste'],
      ];
    case 'layouts':
      return [['copy', 'paste', 'lift']];
    case 'pointer':
      return [['copy', 'paste', 'lift'], ['pointer-looks']];
    case 'step':
      return [['lift'], ['range-around', 'pace-stretch', 'pace-cut', 'pace-freeze']];
    case 'marker':
      return [['lift'], ['marker-back', 'marker-on']];
    case 'lane':
      return [
        ['lane-lock', 'lane-front', 'lane-back'],
        ['close-gap', 'lane-remove'],
      ];
    case 'presenter':
      return [['layout-corner', 'layout-side', 'layout-presenter', 'layout-screen', 'layout-hand']];
    case 'path':
    case 'private':
    case 'project':
    case 'plan':
    case 'suggestions':
      return [];
    default:
      return assertNever(kind);
  }
}

/** What can be done now with what is selected, or with the range, or where nothing is. */
export function commandsFor(state: EditorState): readonly Ids[] {
  if (state.selection) return forKind(state.selection.kind);
  return rangeOf(state) ? RANGE : NOTHING;
}
