'use client';
import { Pipette, WandSparkles } from 'lucide-react';
import { changeKey, changePresenter, DEFAULT_KEY } from '@/core/edit/settings';
import { CORNERS, type Corner, type FootageKey, type PresenterPlacement } from '@/core/project/model';
import type { WallEstimate } from '@/core/key/wall';
import { visibleClip } from '@/core/project/query';
import { tidyArea } from '@/core/scale/area';
import { Button } from '../../parts/Button';
import { CheckField, ColorField, Field, SelectField, SliderField } from '../../parts/fields';
import { RectFields } from '../../parts/RectFields';
import { api } from '../../shell/api';
import { tellFault } from '../../shell/notices-store';
import { useEditor, useEditorStore } from '../store';
import { Heading } from './Heading';

const CORNER_NAMES: Record<Corner, string> = {
  'top-left': 'top left',
  'top-right': 'top right',
  'bottom-left': 'bottom left',
  'bottom-right': 'bottom right',
};
const percent = (v: number) => String(Math.round(v * 100));

/** Where the presenter stands in the corner layout, and the key of a recording. */
export function PresenterDetails({ footageId }: { footageId?: string }) {
  const placement = useEditor((s) => s.project.presenter);
  const edit = useEditor((s) => s.edit);
  const atPlayhead = useEditor((s) => footageId ?? visibleClip(s.project, 'presenter', s.playhead)?.footageId);
  const change = (what: Partial<PresenterPlacement>) => edit('Presenter', (draft) => changePresenter(draft, what), true);
  return (
    <div className="grid gap-2">
      <Heading title="Presenter" />
      <Field label="Corner">
        {() => (
          <div role="group" aria-label="Corner" className="grid w-24 grid-cols-2 gap-1 border border-line bg-surround/20 p-1">
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
      <CheckField label="Mirror" value={placement.mirror} onChange={(mirror) => change({ mirror })} />
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
        <ColorField label="Ring colour" value={placement.ring.color} onChange={(color) => change({ ring: { ...placement.ring, color } })} />
      )}
      {atPlayhead ? (
        <KeySettings footageId={atPlayhead} />
      ) : (
        <p className="text-ink-2">Put the playhead on the presenter’s recording to set its key.</p>
      )}
    </div>
  );
}

function KeySettings({ footageId }: { footageId: string }) {
  const store = useEditorStore();
  const key = useEditor((s) => s.project.keys.find((k) => k.footageId === footageId)) ?? { ...DEFAULT_KEY, on: false };
  const placement = useEditor((s) => s.project.presenter);
  const name = useEditor((s) => s.sources.footage[footageId]?.name);
  const takes = useEditor((s) =>
    [...new Set(s.project.lanes.filter((l) => l.kind === 'presenter').flatMap((l) => l.clips.map((c) => c.footageId)))].join(' '),
  );
  const view = useEditor((s) => s.view);
  const picking = useEditor((s) => s.picking);
  const edit = useEditor((s) => s.edit);
  const others = takes.split(' ').filter((id) => id && id !== footageId);
  const change = (what: Partial<Omit<typeof key, 'footageId'>>) => edit('Chroma key', (draft) => changeKey(draft, footageId, what), true);
  const find = async () => {
    try {
      const { wall } = await api<{ wall: WallEstimate | null }>(`/api/footage/${footageId}/wall`, { method: 'POST' });
      if (wall) edit('Find the wall', (draft) => changeKey(draft, footageId, { ...wall, on: true }));
      else tellFault('No even wall was found along the border of the recording. Pick its colour by hand.');
    } catch (error) {
      tellFault(error);
    }
  };
  const toggle = (on: boolean) => {
    if (on && !store.getState().project.keys.some((k) => k.footageId === footageId)) void find();
    else change({ on });
  };
  return (
    <section aria-label="Chroma key" className="mt-2 grid gap-2 border-t border-line pt-3">
      <Heading title="Chroma key" />
      <p className="text-xs text-ink-2">For {name}; each recording has its own.</p>
      <CheckField label="Take the wall out" value={key.on} onChange={toggle} />
      {key.on && (
        <>
          <div className="flex flex-wrap gap-2">
            <Button onClick={() => void find()}>
              <WandSparkles size={14} aria-hidden /> Find the wall
            </Button>
            <Button
              aria-pressed={picking}
              onClick={() => store.setState(picking ? { picking: false, view: {} } : { picking: true, view: { presenter: 'raw' } })}
            >
              <Pipette size={14} aria-hidden /> {picking ? 'Press the wall…' : 'Pick its colour'}
            </Button>
            <Button
              aria-pressed={view.presenter === 'matte'}
              onClick={() => store.setState({ picking: false, view: view.presenter === 'matte' ? {} : { presenter: 'matte' } })}
            >
              {view.presenter === 'matte' ? 'Back to the Picture' : 'Show matte'}
            </Button>
          </div>
          <ColorField label="Wall" value={key.color} onChange={(color) => change({ color, wall: null })} />
          <SliderField
            label="Tolerance"
            value={key.tolerance}
            min={0}
            max={90}
            step={1}
            unit=""
            onChange={(tolerance) => change({ tolerance })}
          />
          <SliderField
            label="Softness"
            value={key.softness}
            min={1}
            max={90}
            step={1}
            unit=""
            onChange={(softness) => change({ softness })}
          />
          <EdgeFields edge={key} footageId={footageId} onChange={change} />
          <CheckField
            label="Fill behind"
            value={placement.backdrop !== null}
            onChange={(on) => edit('Presenter', (draft) => changePresenter(draft, { backdrop: on ? '#e3eef2' : null }))}
          />
          {placement.backdrop && (
            <ColorField
              label="Fill colour"
              value={placement.backdrop}
              onChange={(backdrop) => edit('Presenter', (draft) => changePresenter(draft, { backdrop }), true)}
            />
          )}
          {others.length > 0 && (
            <Button
              onClick={() =>
                edit('Same key for all takes', (draft) => {
                  const { footageId: _own, ...settings } = key as FootageKey;
                  for (const id of others) changeKey(draft, id, { ...settings, on: true });
                })
              }
            >
              Same key for all takes
            </Button>
          )}
        </>
      )}
    </section>
  );
}

type EdgeKey = Pick<FootageKey, 'choke' | 'feather' | 'garbage'>;

/** The edge of what the key leaves, and what is taken out whatever its colour. */
function EdgeFields({ edge, footageId, onChange }: { edge: EdgeKey; footageId: string; onChange: (what: Partial<EdgeKey>) => void }) {
  const footage = useEditor((s) => s.sources.footage[footageId]);
  if (!footage) return null;
  const { garbage } = edge;
  const inner = { x: footage.width * 0.1, y: 0, width: footage.width * 0.8, height: footage.height };
  return (
    <>
      <SliderField label="Choke" value={edge.choke} min={-10} max={10} step={1} unit="px" onChange={(choke) => onChange({ choke })} />
      <SliderField label="Feather" value={edge.feather} min={0} max={20} step={1} unit="px" onChange={(feather) => onChange({ feather })} />
      <CheckField label="Garbage matte" value={!!garbage} onChange={(on) => onChange({ garbage: on ? tidyArea(inner, footage) : null })} />
      {garbage && (
        <>
          <p className="text-xs text-ink-2">What lies outside of this rectangle (px) is taken out whatever its colour.</p>
          <RectFields rect={garbage} onSide={(side, value) => onChange({ garbage: tidyArea({ ...garbage, [side]: value }, footage) })} />
        </>
      )}
    </>
  );
}
