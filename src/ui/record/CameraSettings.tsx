'use client';
import type { FootageRect } from '@/core/project/model';
import { FootageLook, PresenterPlacement } from '@/core/project/model';
import { useEditor } from '../edit/store';
import { CheckField, SliderField } from '../parts/fields';
import { SettingField } from '../parts/setting-fields';
import { useRecord } from './record-store';
import { sizeOf } from './settings';

/** The part of a camera's picture for a zoom and a pan, each pan -1 to 1. */
function areaFor(
  size: { width: number; height: number },
  zoom: number,
  panX: number,
  panY: number,
): FootageRect | null {
  if (zoom <= 1) return null;
  const even = (n: number) => Math.round(n / 2) * 2;
  const width = even(size.width / zoom);
  const height = even(size.height / zoom);
  return {
    x: even(((size.width - width) * (1 + panX)) / 2),
    y: even(((size.height - height) * (1 + panY)) / 2),
    width,
    height,
  };
}

/**
 * How the camera's picture is shown. All of it is kept as data; the recording has the whole
 * picture.
 */
export function CameraSettings() {
  const look = useRecord((s) => s.cameraLook);
  const cameraSize = useRecord((s) => s.settings.cameraSize);
  const open = useRecord((s) => s.sources.camera.open);
  const set = useRecord((s) => s.set);
  const corner = useEditor((s) => s.project.presenter.corner);
  const apply = useEditor((s) => s.apply);
  if (!open) return <p className="text-xs text-ink-2">Switch a camera on first.</p>;
  const { width = sizeOf(cameraSize).width, height = sizeOf(cameraSize).height } =
    open.track.getSettings();
  const size = { width, height };
  const change = (what: Partial<typeof look>) => set({ cameraLook: { ...look, ...what } });
  const zoom = look.area ? size.width / look.area.width : 1;
  const pan = (at: number, length: number, whole: number) =>
    whole > length ? (at / (whole - length)) * 2 - 1 : 0;
  const panX = look.area ? pan(look.area.x, look.area.width, size.width) : 0;
  const panY = look.area ? pan(look.area.y, look.area.height, size.height) : 0;
  return (
    <div className="grid gap-2">
      <CheckField label="Mirror" value={look.mirror} onChange={(mirror) => change({ mirror })} />
      {(['brightness', 'contrast'] as const).map((name) => (
        <SettingField
          key={name}
          schema={FootageLook.properties[name]}
          value={look[name]}
          onChange={(value) => change({ [name]: value })}
        />
      ))}
      <SliderField
        label="Closer"
        value={zoom}
        min={1}
        max={3}
        step={0.1}
        unit="×"
        show={(v) => v.toFixed(1)}
        onChange={(v) => change({ area: areaFor(size, v, panX, panY) })}
      />
      {look.area && (
        <>
          <SliderField
            label="To the side"
            value={Math.round(panX * 100)}
            min={-100}
            max={100}
            step={5}
            unit="%"
            onChange={(v) => change({ area: areaFor(size, zoom, v / 100, panY) })}
          />
          <SliderField
            label="Up and down"
            value={Math.round(panY * 100)}
            min={-100}
            max={100}
            step={5}
            unit="%"
            onChange={(v) => change({ area: areaFor(size, zoom, panX, v / 100) })}
          />
        </>
      )}
      <SettingField
        schema={PresenterPlacement.properties.corner}
        value={corner}
        onChange={(value) => apply('change-presenter', { change: { corner: value } })}
      />
    </div>
  );
}
