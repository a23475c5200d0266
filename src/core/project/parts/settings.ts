import { Type, type Static } from '@sinclair/typebox';
import { Ground } from '../../layout/ground';
import { oneOf, strict } from '../../schema/parts';
import { switchSetting } from '../../schema/setting';
import { CAPTION_NEEDS, TARGET_IDS } from '../targets';

const Side = Type.Integer({ minimum: 16, maximum: 7680, multipleOf: 2 });

/** The picture that the tutorial is made in. */
export const Canvas = strict({
  width: Side,
  height: Side,
  frameRate: strict({
    num: Type.Integer({ minimum: 1, maximum: 240_000 }),
    den: Type.Integer({ minimum: 1, maximum: 1001 }),
  }),
  background: { ...Ground, description: 'Seen where no footage is.' },
  crisp: {
    ...switchSetting('Rebuild magnified text', true),
    description: 'Whether text of screen recordings is rebuilt where it is magnified.',
  },
});
export type Canvas = Static<typeof Canvas>;

/** Where the video will be shown, and what is asked of it there. */
export const ProjectTarget = strict({
  id: oneOf(TARGET_IDS),
  loudness: Type.Number({
    minimum: -40,
    maximum: -5,
    description: 'Integrated loudness to reach, LUFS (ITU-R BS.1770).',
  }),
  captions: oneOf(CAPTION_NEEDS),
});
export type ProjectTarget = Static<typeof ProjectTarget>;

export const ScriptSettings = strict({
  wordsPerMinute: Type.Number({
    minimum: 40,
    maximum: 400,
    description: 'How fast the narration is read.',
  }),
});
export type ScriptSettings = Static<typeof ScriptSettings>;
