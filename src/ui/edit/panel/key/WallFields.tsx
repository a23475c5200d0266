'use client';
import { useCallback } from 'react';
import { Pipette, Search, X } from 'lucide-react';
import type { WallEstimate } from '@/core/key/wall';
import { FootageKey } from '@/core/project/model';
import { Button } from '../../../parts/Button';
import { IconButton } from '../../../parts/IconButton';
import { CheckField, ColorField } from '../../../parts/fields';
import { SettingFields } from '../../../parts/setting-fields';
import { tellFault } from '../../../shell/notices-store';
import { useEditor, useEditorStore } from '../../store';
import { useAnalysis, type Finding } from '../use-analysis';

/** Looks for the wall of a recording, and keys it out once it is found. */
export function useWall(footageId: string): Finding {
  const apply = useEditor((s) => s.apply);
  const onWall = useCallback(
    (wall: WallEstimate | null) => {
      if (wall) apply('change-key', { footageId, change: { ...wall, method: 'wall', on: true } });
      else
        tellFault(
          'No even background was found along the border of the recording. Pick its colour by hand, or have the person found.',
        );
    },
    [apply, footageId],
  );
  return useAnalysis(footageId, 'wall', onWall);
}

/** A wall of one colour: what it is, and how far from it a pixel is the presenter. */
export function WallFields({
  value,
  wall,
  onChange,
}: {
  value: FootageKey;
  wall: Finding;
  onChange: (what: Partial<Omit<FootageKey, 'footageId'>>) => void;
}) {
  const store = useEditorStore();
  const picking = useEditor((s) => s.picking);
  const pick = (what: 'color' | 'sample') =>
    store.setState(
      picking === what
        ? { picking: null, view: {} }
        : { picking: what, view: { presenter: 'raw' } },
    );
  return (
    <>
      <div className="flex flex-wrap gap-2">
        {wall.progress === null ? (
          <Button onClick={() => wall.ask()}>
            <Search size={14} aria-hidden /> Find the background
          </Button>
        ) : (
          <Button onClick={wall.cancel}>Stop looking ({Math.round(wall.progress * 100)} %)</Button>
        )}
        <Button aria-pressed={picking === 'color'} onClick={() => pick('color')}>
          <Pipette size={14} aria-hidden />{' '}
          {picking === 'color' ? 'Press the background…' : 'Pick its colour'}
        </Button>
        <Button aria-pressed={picking === 'sample'} onClick={() => pick('sample')}>
          <Pipette size={14} aria-hidden />{' '}
          {picking === 'sample' ? 'Press what is left of it…' : 'Add a sample'}
        </Button>
      </div>
      <ColorField
        label="Background colour"
        value={value.color}
        onChange={(color) => onChange({ color, wall: null })}
      />
      {value.samples.length > 0 && (
        <ul aria-label="Samples" className="flex flex-wrap gap-1">
          {value.samples.map((color, i) => (
            <li key={`${color} ${i}`} className="flex items-center border border-line">
              <span className="size-5" style={{ background: color }} aria-hidden />
              <IconButton
                icon={X}
                label={`Take sample ${i + 1} away`}
                onClick={() => onChange({ samples: value.samples.filter((_, k) => k !== i) })}
              />
            </li>
          ))}
        </ul>
      )}
      <SettingFields
        schema={FootageKey}
        value={value}
        only={['tolerance', 'softness', 'steady']}
        onChange={onChange}
      />
      <CheckField
        label="Another colour for its light"
        value={value.spill !== null}
        onChange={(on) => onChange({ spill: on ? value.color : null })}
      />
      {value.spill !== null && (
        <ColorField
          label="Colour of its light"
          value={value.spill}
          onChange={(spill) => onChange({ spill })}
        />
      )}
    </>
  );
}
