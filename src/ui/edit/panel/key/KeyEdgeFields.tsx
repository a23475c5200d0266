'use client';
import { FootageKey } from '@/core/project/model';
import { tidyArea } from '@/core/scale/area';
import { CheckField } from '../../../parts/fields';
import { RectFields } from '../../../parts/RectFields';
import { SettingField } from '../../../parts/setting-fields';
import { useEditor } from '../../store';

type EdgeKey = Pick<FootageKey, 'choke' | 'feather' | 'garbage'>;

/** The edge of what the key leaves, and what is taken out whatever its colour. */
export function KeyEdgeFields({
  edge,
  footageId,
  onChange,
}: {
  edge: EdgeKey;
  footageId: string;
  onChange: (what: Partial<EdgeKey>) => void;
}) {
  const footage = useEditor((s) => s.sources.footage[footageId]);
  if (!footage) return null;
  const { garbage } = edge;
  const inner = {
    x: footage.width * 0.1,
    y: 0,
    width: footage.width * 0.8,
    height: footage.height,
  };
  return (
    <>
      {(['choke', 'feather'] as const).map((name) => (
        <SettingField
          key={name}
          schema={FootageKey.properties[name]}
          value={edge[name]}
          onChange={(value) => onChange({ [name]: value })}
        />
      ))}
      <CheckField
        label="Garbage matte"
        value={!!garbage}
        onChange={(on) => onChange({ garbage: on ? tidyArea(inner, footage) : null })}
      />
      {garbage && (
        <>
          <p className="text-xs text-ink-2">
            What lies outside of this rectangle (px) is taken out whatever its colour.
          </p>
          <RectFields
            rect={garbage}
            onSide={(side, value) =>
              onChange({ garbage: tidyArea({ ...garbage, [side]: value }, footage) })
            }
          />
        </>
      )}
    </>
  );
}
