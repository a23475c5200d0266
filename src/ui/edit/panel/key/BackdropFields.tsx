'use client';
import { defaultsOf, shareSetting } from '@/core/schema/setting';
import { PresenterPlacement, type Backdrop } from '@/core/project/model';
import { ColorField, SelectField } from '../../../parts/fields';
import { SettingField } from '../../../parts/setting-fields';
import { useEditor } from '../../store';
import { StillField, useStills } from '../StillField';

const USUAL_COLOR = defaultsOf(PresenterPlacement).backdrop as string;
const USUAL_BLUR = 0.04;
const BlurSize = shareSetting('Blur', USUAL_BLUR, { min: 0.005, max: 0.2, step: 0.005 });

type Kind = 'clear' | 'color' | 'blur' | 'picture';

function kindOf(backdrop: Backdrop | null): Kind {
  if (backdrop === null) return 'clear';
  if (typeof backdrop === 'string') return 'color';
  return 'blur' in backdrop ? 'blur' : 'picture';
}

/** What is seen where the background was taken out. */
export function BackdropFields() {
  const backdrop = useEditor((s) => s.project.presenter.backdrop);
  const apply = useEditor((s) => s.apply);
  const stills = useStills();
  const set = (next: Backdrop | null, run = false) =>
    apply('change-presenter', { change: { backdrop: next } }, run);
  const kind = kindOf(backdrop);
  const choose = (next: Kind) => {
    if (next === 'clear') set(null);
    else if (next === 'color') set(USUAL_COLOR);
    else if (next === 'blur') set({ blur: USUAL_BLUR });
    else if (stills[0]) set({ footageId: stills[0].id });
  };
  const shown =
    typeof backdrop === 'object' && backdrop && 'footageId' in backdrop ? backdrop : null;
  return (
    <>
      <SelectField
        label="Behind them"
        value={kind}
        options={[
          ['clear', 'Nothing'],
          ['color', 'A colour'],
          ['blur', 'Their background, blurred'],
          ...(stills.length || shown ? [['picture', 'A picture of Footage'] as const] : []),
        ]}
        onChange={choose}
      />
      {typeof backdrop === 'string' && (
        <ColorField
          label="Background fill"
          value={backdrop}
          onChange={(color) => set(color, true)}
        />
      )}
      {typeof backdrop === 'object' && backdrop && 'blur' in backdrop && (
        <SettingField
          schema={BlurSize}
          value={backdrop.blur}
          onChange={(blur) => set({ blur }, true)}
        />
      )}
      {shown && <StillField value={shown.footageId} onChange={(footageId) => set({ footageId })} />}
    </>
  );
}
