'use client';
import { useCallback } from 'react';
import { Pipette, Search } from 'lucide-react';
import { DEFAULT_KEY } from '@/core/edit/settings';
import type { WallEstimate } from '@/core/key/wall';
import { PresenterPlacement } from '@/core/layout/placement';
import { defaultsOf } from '@/core/schema/setting';
import { FootageKey } from '@/core/project/model';
import { Button } from '../../parts/Button';
import { CheckField, ColorField } from '../../parts/fields';
import { SettingFields } from '../../parts/setting-fields';
import { tellFault } from '../../shell/notices-store';
import { useEditor, useEditorStore } from '../store';
import { Heading } from './Heading';
import { KeyEdgeFields } from './KeyEdgeFields';
import { useAnalysis } from './use-analysis';

const USUAL_BACKDROP = defaultsOf(PresenterPlacement).backdrop;

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
  const onWall = useCallback(
    (wall: WallEstimate | null) => {
      if (wall) apply('change-key', { footageId, change: { ...wall, on: true } });
      else
        tellFault(
          'No even background was found along the border of the recording. Pick its colour by hand.',
        );
    },
    [apply, footageId],
  );
  const wall = useAnalysis(footageId, 'wall', onWall);
  const toggle = (on: boolean) => {
    if (on && !store.getState().project.keys.some((k) => k.footageId === footageId)) wall.ask();
    else change({ on });
  };
  return (
    <section aria-label="Chroma key" className="mt-2 grid gap-2 border-t border-line pt-3">
      <Heading title="Chroma key" />
      <p className="text-xs text-ink-2">For {name}; each recording has its own.</p>
      <CheckField label="Key out the background" value={key.on} onChange={toggle} />
      {key.on && (
        <>
          <div className="flex flex-wrap gap-2">
            {wall.progress === null ? (
              <Button onClick={wall.ask}>
                <Search size={14} aria-hidden /> Find the background
              </Button>
            ) : (
              <Button onClick={wall.cancel}>
                Stop looking ({Math.round(wall.progress * 100)} %)
              </Button>
            )}
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
              <Pipette size={14} aria-hidden />{' '}
              {picking ? 'Press the background…' : 'Pick its colour'}
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
            label="Background colour"
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
            label="Background"
            value={placement.backdrop !== null}
            onChange={(on) =>
              apply('change-presenter', { change: { backdrop: on ? USUAL_BACKDROP : null } })
            }
          />
          {placement.backdrop && (
            <ColorField
              label="Background fill"
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
