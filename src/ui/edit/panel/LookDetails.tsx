'use client';
import type { changeLook } from '@/core/edit/settings';
import { DEFAULT_LOOK } from '@/core/edit/settings';
import { lookOf } from '@/core/project/query';
import { FootageLook, type FootageRect } from '@/core/project/model';
import type { FootageFacts } from '@/core/project/sources';
import { Button } from '../../parts/Button';
import { SelectField } from '../../parts/fields';
import { RectFields } from '../../parts/RectFields';
import { SettingFields } from '../../parts/setting-fields';
import { tidyArea } from '@/core/scale/area';
import { useEditor } from '../store';
import { MatchTake } from './MatchTake';

const SHAPES = [
  ['plain', 'Fit, plain bars'],
  ['blur', 'Fit, blurred bars'],
  ['fill', 'Fill the frame'],
] as const;

/** The part of a recording that is shown, and how bright. The recording itself stays whole. */
export function LookDetails({ footage }: { footage: FootageFacts }) {
  const look = useEditor((s) => lookOf(s.project, footage.id));
  const area = look?.area ?? { x: 0, y: 0, width: footage.width, height: footage.height };
  const apply = useEditor((s) => s.apply);
  const change = (what: Parameters<typeof changeLook>[2], merge = true) =>
    apply('change-look', { footageId: footage.id, change: what }, merge);
  const setSide = (side: keyof FootageRect, value: number) => {
    const next = tidyArea(
      { x: area.x, y: area.y, width: area.width, height: area.height, [side]: value },
      footage,
    );
    change({ area: next });
  };
  return (
    <fieldset className="grid gap-2 border-t border-line pt-2">
      <legend className="font-semibold">Area of the recording (px)</legend>
      <RectFields rect={area} onSide={setSide} />
      {footage.role !== 'presenter' && (
        <SelectField
          label="In the picture"
          value={look?.fit === 'fill' ? 'fill' : (look?.bars ?? 'plain')}
          options={SHAPES}
          onChange={(shape) =>
            change(shape === 'fill' ? { fit: 'fill' } : { fit: 'fit', bars: shape }, false)
          }
        />
      )}
      {look?.area && (
        <Button onClick={() => change({ area: null }, false)}>
          Use all of it ({footage.width}×{footage.height} px)
        </Button>
      )}
      <SettingFields
        schema={FootageLook}
        value={look ?? { footageId: footage.id, ...DEFAULT_LOOK }}
        only={[
          'opacity',
          'blend',
          ...(footage.role === 'presenter' || footage.kind === 'image' ? (['tilt'] as const) : []),
          'brightness',
          'contrast',
          ...(['exposure', 'saturation', 'temperature'] as const),
          ...(footage.role === 'presenter' ? [] : (['crisp'] as const)),
        ]}
        onChange={change}
      />
      {footage.role === 'presenter' && <MatchTake footageId={footage.id} />}
    </fieldset>
  );
}
