'use client';
import { Pipette, WandSparkles } from 'lucide-react';
import { DEFAULT_KEY } from '@/core/edit/settings';
import type { WallEstimate } from '@/core/key/wall';
import { FootageKey } from '@/core/project/model';
import { Button } from '../../parts/Button';
import { CheckField, ColorField } from '../../parts/fields';
import { SettingFields } from '../../parts/setting-fields';
import { api } from '../../shell/api';
import { tellFault } from '../../shell/notices-store';
import { useEditor, useEditorStore } from '../store';
import { Heading } from './Heading';
import { KeyEdgeFields } from './KeyEdgeFields';

/** The chroma key of a recording. */
export function KeyDetails({ footageId }: { footageId: string }) {
  const store = useEditorStore();
  const key = useEditor((s) => s.project.keys.find((k) => k.footageId === footageId)) ?? {
    ...DEFAULT_KEY,
    on: false,
  };
  const placement = useEditor((s) => s.project.presenter);
  const name = useEditor((s) => s.sources.footage[footageId]?.name);
  const takes = useEditor((s) =>
    [
      ...new Set(
        s.project.lanes
          .filter((l) => l.kind === 'presenter')
          .flatMap((l) => l.clips.map((c) => c.footageId)),
      ),
    ].join(' '),
  );
  const view = useEditor((s) => s.view);
  const picking = useEditor((s) => s.picking);
  const apply = useEditor((s) => s.apply);
  const others = takes.split(' ').filter((id) => id && id !== footageId);
  const change = (what: Partial<Omit<typeof key, 'footageId'>>) =>
    apply('change-key', { footageId, change: what }, true);
  const find = async () => {
    try {
      const { wall } = await api<{ wall: WallEstimate | null }>(`/api/footage/${footageId}/wall`, {
        method: 'POST',
      });
      if (wall) apply('change-key', { footageId, change: { ...wall, on: true } });
      else
        tellFault(
          'No even wall was found along the border of the recording. Pick its colour by hand.',
        );
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
              onClick={() =>
                store.setState(
                  picking
                    ? { picking: false, view: {} }
                    : { picking: true, view: { presenter: 'raw' } },
                )
              }
            >
              <Pipette size={14} aria-hidden /> {picking ? 'Press the wall…' : 'Pick its colour'}
            </Button>
            <Button
              aria-pressed={view.presenter === 'matte'}
              onClick={() =>
                store.setState({
                  picking: false,
                  view: view.presenter === 'matte' ? {} : { presenter: 'matte' },
                })
              }
            >
              {view.presenter === 'matte' ? 'Back to the Picture' : 'Show matte'}
            </Button>
          </div>
          <ColorField
            label="Wall"
            value={key.color}
            onChange={(color) => change({ color, wall: null })}
          />
          <SettingFields
            schema={FootageKey}
            value={{ ...key, footageId }}
            only={['tolerance', 'softness']}
            onChange={change}
          />
          <KeyEdgeFields edge={key} footageId={footageId} onChange={change} />
          <CheckField
            label="Fill behind"
            value={placement.backdrop !== null}
            onChange={(on) =>
              apply('change-presenter', { change: { backdrop: on ? '#e3eef2' : null } })
            }
          />
          {placement.backdrop && (
            <ColorField
              label="Fill colour"
              value={placement.backdrop}
              onChange={(backdrop) => apply('change-presenter', { change: { backdrop } }, true)}
            />
          )}
          {others.length > 0 && (
            <Button onClick={() => apply('copy-key', { from: footageId, to: others })}>
              Same key for all takes
            </Button>
          )}
        </>
      )}
    </section>
  );
}
