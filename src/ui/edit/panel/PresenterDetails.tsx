'use client';
import { changePresenter } from '@/core/edit/settings';
import { CORNERS, type Corner, type PresenterPlacement } from '@/core/project/model';
import { visibleClip } from '@/core/project/query';
import { CheckField, ColorField, Field, SelectField, SliderField } from '../../parts/fields';
import { useEditor } from '../store';
import { Heading } from './Heading';
import { KeyDetails } from './KeyDetails';

const CORNER_NAMES: Record<Corner, string> = {
  'top-left': 'top left',
  'top-right': 'top right',
  'bottom-left': 'bottom left',
  'bottom-right': 'bottom right',
};
const percent = (v: number) => String(Math.round(v * 100));

/**
 * Where the presenter stands in the corner layout, and the key of the recording at the playhead or
 * of the one that is named.
 */
export function PresenterDetails({ footageId }: { footageId?: string }) {
  const placement = useEditor((s) => s.project.presenter);
  const edit = useEditor((s) => s.edit);
  const atPlayhead = useEditor(
    (s) => footageId ?? visibleClip(s.project, 'presenter', s.playhead)?.footageId,
  );
  const change = (what: Partial<PresenterPlacement>) =>
    edit('Presenter', (draft) => changePresenter(draft, what), true);
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
            {CORNERS.map((corner) => (
              <button
                key={corner}
                aria-label={CORNER_NAMES[corner]}
                aria-pressed={placement.corner === corner}
                title={CORNER_NAMES[corner]}
                onClick={() => change({ corner })}
                className={`h-5 border ${placement.corner === corner ? 'border-action bg-action' : 'border-line bg-sheet hover:border-ink-2'}`}
              />
            ))}
          </div>
        )}
      </Field>
      <SliderField
        label="Size"
        value={placement.size}
        min={0.1}
        max={0.8}
        step={0.01}
        unit="%"
        show={percent}
        onChange={(size) => change({ size })}
      />
      <SliderField
        label="Distance to edge"
        value={placement.margin}
        min={0}
        max={0.2}
        step={0.005}
        unit="%"
        show={percent}
        onChange={(margin) => change({ margin })}
      />
      <SelectField
        label="Shape"
        value={placement.shape}
        options={[
          ['circle', 'Circle'],
          ['rectangle', 'Rectangle'],
          ['rounded', 'Rounded'],
        ]}
        onChange={(shape) => change({ shape })}
      />
      {placement.shape === 'circle' && (
        <>
          <SliderField
            label="Face closer"
            value={1.2 - placement.crop}
            min={0.2}
            max={1}
            step={0.01}
            unit="%"
            show={percent}
            onChange={(v) => change({ crop: 1.2 - v })}
          />
          <SliderField
            label="Middle, across"
            value={placement.center.x}
            min={0}
            max={1}
            step={0.01}
            unit="%"
            show={percent}
            onChange={(x) => change({ center: { ...placement.center, x } })}
          />
          <SliderField
            label="Middle, down"
            value={placement.center.y}
            min={0}
            max={1}
            step={0.01}
            unit="%"
            show={percent}
            onChange={(y) => change({ center: { ...placement.center, y } })}
          />
        </>
      )}
      <SliderField
        label="Feather"
        value={placement.feather}
        min={0}
        max={0.3}
        step={0.01}
        unit="%"
        show={percent}
        onChange={(feather) => change({ feather })}
      />
      <CheckField
        label="Mirror"
        value={placement.mirror}
        onChange={(mirror) => change({ mirror })}
      />
      <SliderField
        label="Ring"
        value={placement.ring.width}
        min={0}
        max={20}
        step={1}
        unit="px"
        onChange={(width) => change({ ring: { ...placement.ring, width } })}
      />
      {placement.ring.width > 0 && (
        <ColorField
          label="Ring colour"
          value={placement.ring.color}
          onChange={(color) => change({ ring: { ...placement.ring, color } })}
        />
      )}
      {atPlayhead ? (
        <KeyDetails footageId={atPlayhead} />
      ) : (
        <p className="text-ink-2">Put the playhead on the presenter’s recording to set its key.</p>
      )}
    </div>
  );
}
