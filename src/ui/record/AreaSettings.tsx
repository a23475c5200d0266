'use client';
import { useState } from 'react';
import type { Preset } from '@/contract/presets';
import type { FootageRect } from '@/core/project/model';
import { tidyArea } from '@/core/scale/area';
import { areaOfShape } from '@/core/scale/capture';
import { useEditor } from '../edit/store';
import { CheckField, inputLook } from '../parts/fields';
import { tell } from '../shell/notices-store';
import { RectFields } from '../parts/RectFields';
import { SavedPresets } from '../presets/SavedPresets';
import { useRecord } from './record-store';
import { useScreenSize } from './use-screen-size';

const RATIOS = [
  ['free', 'free', 0],
  ['frame', 'as the frame', -1],
  ['16:9', '16:9', 16 / 9],
  ['4:3', '4:3', 4 / 3],
  ['9:16', '9:16', 9 / 16],
  ['1:1', '1:1', 1],
  ['own', 'own', -2],
] as const;

/**
 * The part of the screen that counts. The whole is recorded all the same, so that it can be widened
 * later.
 */
export function AreaSettings() {
  const canvas = useEditor((s) => s.project.canvas);
  const area = useRecord((s) => s.area);
  const set = useRecord((s) => s.set);
  const size = useScreenSize();
  const [ratio, setRatio] = useState<string>('free');
  const [own, setOwn] = useState({ width: 3, height: 2 });
  if (!size)
    return (
      <p className="text-xs text-ink-2">Switch a screen on first. By default all of it counts.</p>
    );
  const shape = () => {
    const found = RATIOS.find(([key]) => key === ratio)![2];
    return found === -1
      ? canvas.width / canvas.height
      : found === -2
        ? own.width / Math.max(1, own.height)
        : found;
  };
  const setSide = (side: keyof FootageRect, value: number) => {
    if (!area || !Number.isFinite(value)) return;
    const next = { ...area, [side]: value };
    const lock = shape();
    if (lock && side === 'width') next.height = value / lock;
    if (lock && side === 'height') next.width = value * lock;
    set({ area: tidyArea(next, size) });
  };
  const lockTo = (key: string) => {
    setRatio(key);
    const found = RATIOS.find(([k]) => k === key)![2];
    if (!area || !found) return;
    const wide =
      found === -1
        ? canvas.width / canvas.height
        : found === -2
          ? own.width / Math.max(1, own.height)
          : found;
    const inner = areaOfShape(area, { width: wide * 1000, height: 1000 });
    set({ area: tidyArea({ ...inner, x: area.x + inner.x, y: area.y + inner.y }, size) });
  };
  const use = ({ value, name: said }: Preset<FootageRect>) => {
    const tidy = tidyArea(value, size);
    set({ area: tidy });
    if (
      tidy.width !== value.width ||
      tidy.height !== value.height ||
      tidy.x !== value.x ||
      tidy.y !== value.y
    )
      tell(
        `“${said}” did not fit on this screen of ${size.width}×${size.height} px and was moved inside.`,
      );
  };
  return (
    <div className="grid gap-2">
      <CheckField
        label="Only an area"
        value={!!area}
        onChange={(on) => set({ area: on ? areaOfShape(size, canvas) : null })}
      />
      {area && (
        <>
          <RectFields rect={area} onSide={setSide} />
          <label className="flex items-center gap-2 text-xs text-ink-2">
            Ratio
            <select className={inputLook} value={ratio} onChange={(e) => lockTo(e.target.value)}>
              {RATIOS.map(([key, label]) => (
                <option key={key} value={key}>
                  {label}
                </option>
              ))}
            </select>
            {ratio === 'own' &&
              (['width', 'height'] as const).map((side) => (
                <input
                  key={side}
                  aria-label={`Own ratio, ${side}`}
                  type="number"
                  min={1}
                  className={`${inputLook} w-12 px-1`}
                  value={own[side]}
                  onChange={(e) => setOwn({ ...own, [side]: Math.max(1, Number(e.target.value)) })}
                />
              ))}
          </label>
        </>
      )}
      <SavedPresets
        kind="area"
        title="Saved areas"
        one="area"
        now={area}
        describe={({ width, height }) => `${width}×${height} px`}
        onUse={use}
      />
    </div>
  );
}
