'use client';
import { SliderField } from './fields';

interface Light {
  /** -1 to 1. */
  readonly brightness: number;
  /** A factor. */
  readonly contrast: number;
}

/** Brightness and contrast of a recording. */
export function LightSliders({
  brightness,
  contrast,
  onChange,
}: Light & { onChange: (change: Partial<Light>) => void }) {
  return (
    <>
      <SliderField
        label="Brightness"
        value={Math.round(brightness * 100)}
        min={-50}
        max={50}
        step={1}
        unit="%"
        onChange={(value) => onChange({ brightness: value / 100 })}
      />
      <SliderField
        label="Contrast"
        value={Math.round(contrast * 100)}
        min={50}
        max={200}
        step={1}
        unit="%"
        onChange={(value) => onChange({ contrast: value / 100 })}
      />
    </>
  );
}
