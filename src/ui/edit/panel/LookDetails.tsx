'use client';
import { changeLook } from '@/core/edit/settings';
import { areaOf, lookOf } from '@/core/project/query';
import type { FootageRect } from '@/core/project/model';
import type { FootageFacts } from '@/core/project/sources';
import { Button } from '../../parts/Button';
import { inputLook, SliderField } from '../../parts/fields';
import { useEditor } from '../store';

const SIDES = [
  ['x', 'Left'],
  ['y', 'Top'],
  ['width', 'Width'],
  ['height', 'Height'],
] as const;

/** The part of a recording that is shown, and how bright. The recording itself stays whole. */
export function LookDetails({ footage }: { footage: FootageFacts }) {
  const look = useEditor((s) => lookOf(s.project, footage.id));
  const area = useEditor((s) => areaOf(s.project, footage));
  const edit = useEditor((s) => s.edit);
  const change = (what: Parameters<typeof changeLook>[2], merge = true) =>
    edit('Area and brightness', (draft) => changeLook(draft, footage.id, what), merge);
  const setSide = (side: keyof FootageRect, value: number) => {
    const next = { x: area.x, y: area.y, width: area.width, height: area.height, [side]: Math.round(value / 2) * 2 };
    next.width = Math.max(16, Math.min(next.width, footage.width));
    next.height = Math.max(16, Math.min(next.height, footage.height));
    next.x = Math.max(0, Math.min(next.x, footage.width - next.width));
    next.y = Math.max(0, Math.min(next.y, footage.height - next.height));
    change({ area: next });
  };
  return (
    <fieldset className="grid gap-2 border-t border-line pt-2">
      <legend className="font-semibold">Area of the recording (px)</legend>
      <div className="grid grid-cols-4 gap-2">
        {SIDES.map(([side, label]) => (
          <label key={side} className="grid gap-0.5 text-xs text-ink-2">
            {label}
            <input
              type="number"
              step={2}
              value={area[side]}
              onChange={(e) => setSide(side, Number(e.target.value))}
              className={`${inputLook} numbers`}
            />
          </label>
        ))}
      </div>
      {look?.area && (
        <Button onClick={() => change({ area: null }, false)}>
          Use all of it ({footage.width}×{footage.height} px)
        </Button>
      )}
      <SliderField
        label="Brightness"
        value={Math.round((look?.brightness ?? 0) * 100)}
        min={-50}
        max={50}
        step={1}
        unit="%"
        onChange={(value) => change({ brightness: value / 100 })}
      />
      <SliderField
        label="Contrast"
        value={Math.round((look?.contrast ?? 1) * 100)}
        min={50}
        max={200}
        step={1}
        unit="%"
        onChange={(value) => change({ contrast: value / 100 })}
      />
    </fieldset>
  );
}
