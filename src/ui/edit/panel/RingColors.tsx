'use client';
import { PresenterPlacement } from '@/core/layout/placement';
import { CheckField, ColorField } from '../../parts/fields';
import { SettingField } from '../../parts/setting-fields';

const { color: COLOR, gap: GAP } = PresenterPlacement.properties.ring.properties;

interface Colors {
  readonly color: string;
  readonly second?: string | null;
  readonly gap?: number;
}

/** The colours of a ring, and how far it stands away. */
export function RingColors({
  ring,
  onRing,
}: {
  ring: Colors;
  onRing: (what: Partial<Colors>) => void;
}) {
  return (
    <>
      <SettingField schema={COLOR} value={ring.color} onChange={(color) => onRing({ color })} />
      <CheckField
        label="Two colours"
        value={!!ring.second}
        onChange={(on) => onRing({ second: on ? '#d8a24a' : null })}
      />
      {ring.second && (
        <ColorField
          label="Second colour"
          value={ring.second}
          onChange={(second) => onRing({ second })}
        />
      )}
      <SettingField schema={GAP} value={ring.gap ?? 0} onChange={(gap) => onRing({ gap })} />
    </>
  );
}
