'use client';
import { aspectOf } from '@/core/layout/rectangles';
import { PresenterPlacement } from '@/core/project/model';
import { visibleClip } from '@/core/project/query';
import { readChoices, shareSetting } from '@/core/schema/setting';
import { Field } from '../../parts/fields';
import { SettingField, SettingFields } from '../../parts/setting-fields';
import { useAtPlayhead, useEditor } from '../store';
import { Heading } from './Heading';
import { FindFace } from './FindFace';
import { KeepClear } from './KeepClear';
import { OwnShapeFields } from './OwnShapeFields';
import { RingColors } from './RingColors';
import { KeyDetails } from './key/KeyDetails';

/** The less of the recording a circle shows, the larger is the face; both go from 0.2 to 1. */
const FACE_AND_CROP = 1.2;
const FaceSize = shareSetting('Face size', FACE_AND_CROP - 0.84, { min: 0.2 });
const FacePosition = shareSetting('Face position', 0.5);

/**
 * Where the presenter stands in the corner layout, and the key of the recording at the playhead or
 * of the one that is named.
 */
export function PresenterDetails({ footageId }: { footageId?: string }) {
  const placement = useEditor((s) => s.project.presenter);
  const apply = useEditor((s) => s.apply);
  const atPlayhead = useAtPlayhead(
    (s, playhead) => footageId ?? visibleClip(s.project, 'presenter', playhead)?.footageId,
  );
  const change = (what: Partial<PresenterPlacement>) =>
    apply('change-presenter', { change: what }, true);
  return (
    <div className="grid gap-2">
      <Heading title="Presenter" />
      <Field label="Corner">
        {() => (
          <div
            role="group"
            aria-label="Corner"
            className="grid w-24 grid-cols-2 gap-1 border border-line bg-surround/20 p-1"
          >
            {readChoices(PresenterPlacement.properties.corner).map(([corner, name]) => (
              <button
                key={corner}
                aria-label={name}
                aria-pressed={placement.corner === corner}
                title={name}
                onClick={() => change({ corner: corner as PresenterPlacement['corner'] })}
                className={`h-5 border ${placement.corner === corner ? 'border-action bg-action' : 'border-line bg-sheet hover:border-ink-2'}`}
              />
            ))}
          </div>
        )}
      </Field>
      <SettingFields
        schema={PresenterPlacement}
        value={placement}
        only={['size', 'margin', 'shape']}
        onChange={change}
      />
      {placement.shape === 'own' && (
        <OwnShapeFields path={placement.path} onPath={(path) => change({ path })} />
      )}
      {aspectOf(placement.shape) && (
        <>
          {atPlayhead && <FindFace footageId={atPlayhead} />}
          <SettingField
            schema={FaceSize}
            value={FACE_AND_CROP - placement.crop}
            onChange={(size) => change({ crop: FACE_AND_CROP - size })}
          />
          <SettingField
            schema={FacePosition}
            label="Face position, across"
            value={placement.center.x}
            onChange={(x) => change({ center: { ...placement.center, x } })}
          />
          <SettingField
            schema={FacePosition}
            label="Face position, down"
            value={placement.center.y}
            onChange={(y) => change({ center: { ...placement.center, y } })}
          />
        </>
      )}
      <SettingFields
        schema={PresenterPlacement}
        value={placement}
        only={['feather', 'mirror', 'shadow', 'reflection']}
        onChange={change}
      />
      <SettingFields
        schema={PresenterPlacement.properties.ring}
        value={placement.ring}
        only={['width']}
        onChange={(what) => change({ ring: { ...placement.ring, ...what } })}
      />
      {placement.ring.width > 0 && (
        <RingColors
          ring={placement.ring}
          onRing={(what) => change({ ring: { ...placement.ring, ...what } })}
        />
      )}
      <KeepClear />
      {atPlayhead ? (
        <KeyDetails footageId={atPlayhead} />
      ) : (
        <p className="text-ink-2">Put the playhead on the presenter’s recording to set its key.</p>
      )}
    </div>
  );
}
