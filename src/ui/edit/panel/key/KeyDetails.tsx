'use client';
import { useShallow } from 'zustand/react/shallow';
import { DEFAULT_KEY } from '@/core/edit/settings';
import { FootageKey } from '@/core/project/model';
import { presenterTakes } from '@/core/project/query';
import { readChoices } from '@/core/schema/setting';
import { Button } from '../../../parts/Button';
import { CheckField, SelectField } from '../../../parts/fields';
import { SettingField } from '../../../parts/setting-fields';
import { useEditor, useEditorStore } from '../../store';
import { Heading } from '../Heading';
import { BackdropFields } from './BackdropFields';
import { KeyEdgeFields } from './KeyEdgeFields';
import { KeyGrade } from './KeyGrade';
import { MatteFields } from './MatteFields';
import { askForMatte, useMatte } from './use-matte';
import { useWall, WallFields } from './WallFields';

const METHODS = readChoices(FootageKey.properties.method) as [FootageKey['method'], string][];

/** How the background of a recording is taken out, and what is put in its place. */
export function KeyDetails({ footageId }: { footageId: string }) {
  const store = useEditorStore();
  const known = useEditor((s) => s.project.keys.find((k) => k.footageId === footageId));
  const key: FootageKey = known ?? { footageId, ...DEFAULT_KEY, on: false };
  const name = useEditor((s) => s.sources.footage[footageId]?.name);
  const takes = useEditor(useShallow((s) => [...presenterTakes(s.project)]));
  const view = useEditor((s) => s.view);
  const apply = useEditor((s) => s.apply);
  const others = takes.filter((id) => id !== footageId);
  const change = (what: Partial<Omit<FootageKey, 'footageId'>>, run = true) =>
    apply('change-key', { footageId, change: what }, run);
  const wall = useWall(footageId);
  const matte = useMatte(key);
  const toggle = (on: boolean) => {
    if (on && !store.getState().project.keys.some((k) => k.footageId === footageId)) wall.ask();
    else change({ on }, false);
  };
  const tellBy = (method: FootageKey['method']) => {
    change({ method, on: true }, false);
    if (method === 'person') matte.make({ method, shot: null });
  };
  const copy = () => {
    apply('copy-key', { from: footageId, to: others });
    if (key.method === 'person')
      for (const take of others) void askForMatte(take, { method: 'person', shot: null });
  };
  return (
    <section aria-label="Key" className="mt-2 grid gap-2 border-t border-line pt-3">
      <Heading title="Key" />
      <p className="text-xs text-ink-2">For {name}; each recording has its own.</p>
      <CheckField label="Key out the background" value={key.on} onChange={toggle} />
      {!key.on && <Button onClick={() => tellBy('person')}>Without a wall: find the person</Button>}
      {key.on && (
        <>
          <SelectField label="Told by" value={key.method} options={METHODS} onChange={tellBy} />
          {key.method === 'wall' ? (
            <WallFields value={key} wall={wall} onChange={change} />
          ) : (
            <MatteFields value={key} onShot={(shot) => change({ shot }, false)} />
          )}
          <Button
            aria-pressed={view.presenter === 'matte'}
            disabled={key.method !== 'wall' && matte.state !== 'ready'}
            onClick={() =>
              store.setState({
                picking: null,
                view: view.presenter === 'matte' ? {} : { presenter: 'matte' },
              })
            }
          >
            {view.presenter === 'matte' ? 'Back to the Picture' : 'Show matte'}
          </Button>
          <KeyGrade value={key} />
          <KeyEdgeFields edge={key} footageId={footageId} onChange={change} />
          <SettingField
            schema={FootageKey.properties.wrap}
            value={key.wrap}
            onChange={(wrap) => change({ wrap })}
          />
          <BackdropFields />
          {others.length > 0 && key.method !== 'shot' && (
            <Button onClick={copy}>Same key for all takes</Button>
          )}
        </>
      )}
    </section>
  );
}
