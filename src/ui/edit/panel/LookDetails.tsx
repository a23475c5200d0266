'use client';
import { changeLook } from '@/core/edit/settings';
import { lookOf } from '@/core/project/query';
import type { FootageRect } from '@/core/project/model';
import type { FootageFacts } from '@/core/project/sources';
import { Button } from '../../parts/Button';
import { SelectField, SliderField } from '../../parts/fields';
import { LightSliders } from '../../parts/LightSliders';
import { RectFields } from '../../parts/RectFields';
import { tidyArea } from '@/core/scale/area';
import { useEditor } from '../store';

const SHAPES = [
  ['plain', 'Fit, plain bars'],
  ['blur', 'Fit, blurred bars'],
  ['fill', 'Fill'],
] as const;

const BLEND_NAMES = [
  ['normal', 'Normal'],
  ['multiply', 'Multiply'],
  ['screen', 'Screen'],
] as const;

/** The part of a recording that is shown, and how bright. The recording itself stays whole. */
export function LookDetails({ footage }: { footage: FootageFacts }) {
  const look = useEditor((s) => lookOf(s.project, footage.id));
  const area = look?.area ?? { x: 0, y: 0, width: footage.width, height: footage.height };
  const edit = useEditor((s) => s.edit);
  const change = (what: Parameters<typeof changeLook>[2], merge = true) =>
    edit('Look of a recording', (draft) => changeLook(draft, footage.id, what), merge);
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
      <SliderField
        label="Opacity"
        value={look?.opacity ?? 1}
        min={0}
        max={1}
        step={0.02}
        unit="%"
        show={(v) => String(Math.round(v * 100))}
        onChange={(opacity) => change({ opacity })}
      />
      <SelectField
        label="Blend"
        value={look?.blend ?? 'normal'}
        options={BLEND_NAMES}
        onChange={(blend) => change({ blend }, false)}
      />
      {(footage.role === 'presenter' || footage.kind === 'image') && (
        <SliderField
          label="Tilt"
          value={look?.tilt ?? 0}
          min={-45}
          max={45}
          step={0.5}
          unit="°"
          onChange={(tilt) => change({ tilt })}
        />
      )}
      <LightSliders
        brightness={look?.brightness ?? 0}
        contrast={look?.contrast ?? 1}
        onChange={change}
      />
    </fieldset>
  );
}
