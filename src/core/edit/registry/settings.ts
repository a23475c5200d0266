import { Type } from '@sinclair/typebox';
import {
  Canvas,
  FootageKey,
  FootageLook,
  PathCorrection,
  PresenterPlacement,
} from '../../project/model';
import { FacePath } from '../../face/follow';
import { correctPointer, dropCorrections } from '../corrections';
import { changeCanvas, changeKey, changeLook, changePresenter } from '../settings';
import { args, defineEdit, Ids } from './kind';

const footageId = Type.String();

/** What a change of the picture is called, by what it changes. */
const CANVAS = {
  width: 'Picture size',
  height: 'Picture size',
  frameRate: 'Frame rate',
  background: 'Background',
} as const;

const CORRECTED: Readonly<Record<PathCorrection['kind'], string>> = {
  ...{ path: 'Draw the pointer’s path', shift: 'Move the pointer’s path' },
  ...{ hidden: 'Pointer hidden', press: 'Press' },
};

/** The picture, the presenter, and how recordings are keyed and shown. */
export const SETTING_EDITS = {
  'change-canvas': defineEdit({
    label: ({ change }) => CANVAS[Object.keys(change)[0] as keyof typeof CANVAS] ?? 'Picture',
    args: args({ change: Type.Partial(Canvas) }),
    run: (p, { change }) => changeCanvas(p, change),
  }),
  'change-presenter': defineEdit({
    label: 'Presenter',
    args: args({ change: Type.Partial(PresenterPlacement) }),
    run: (p, { change }) => changePresenter(p, change),
  }),
  'change-key': defineEdit({
    label: 'Chroma key',
    args: args({
      footageId,
      change: Type.Partial(Type.Omit(FootageKey, ['footageId'])),
    }),
    run: (p, { footageId, change }) => changeKey(p, footageId, change),
  }),
  'copy-key': defineEdit({
    label: 'Same key for all takes',
    args: args({ from: footageId, to: Ids }),
    run(p, { from, to }) {
      const key = p.keys.find((k) => k.footageId === from);
      if (!key) return;
      // A shot without the presenter is one of its own recording.
      const { footageId: _own, shot: _shot, ...settings } = key;
      for (const id of to) changeKey(p, id, { ...structuredClone(settings), on: true });
    },
  }),
  'correct-pointer': defineEdit({
    label: ({ correction }) => CORRECTED[correction.kind],
    args: args({ footageId, correction: PathCorrection }),
    run: (p, { footageId, correction }) =>
      correctPointer(p, footageId, structuredClone(correction)),
  }),
  'drop-corrections': defineEdit({
    label: 'As it was found',
    args: args({ footageId, from: Type.Number(), to: Type.Number() }),
    run: (p, { footageId, from, to }) => dropCorrections(p, footageId, from, to),
  }),
  'change-look': defineEdit({
    label: 'Look of a recording',
    args: args({
      footageId,
      change: Type.Partial(Type.Omit(FootageLook, ['footageId'])),
    }),
    run: (p, { footageId, change }) => changeLook(p, footageId, change),
  }),
  'follow-face': defineEdit({
    label: 'Follow the face',
    args: args({
      footageId,
      path: FacePath,
      shown: Type.Pick(PresenterPlacement, ['center', 'crop']),
    }),
    run: (p, { footageId, path, shown }) => {
      changeLook(p, footageId, { face: structuredClone(path) });
      changePresenter(p, structuredClone(shown));
    },
  }),
} as const;
