'use client';
import { plainGround, type Ground } from '@/core/layout/ground';
import { ColorField, SelectField } from '../../parts/fields';
import { StillField, useStills } from './StillField';

/** The colour that a second one begins with. */
const SECOND = '#0e6b63';

type Kind = 'color' | 'two' | 'picture';

function kindOf(ground: Ground): Kind {
  if (typeof ground === 'string') return 'color';
  return 'from' in ground ? 'two' : 'picture';
}

/** What is seen where neither screen nor presenter is: a colour, two, or a picture. */
export function GroundFields({
  label,
  value,
  onChange,
}: {
  readonly label: string;
  readonly value: Ground;
  readonly onChange: (ground: Ground, run?: boolean) => void;
}) {
  const stills = useStills();
  const choose = (kind: Kind) => {
    const from = plainGround(value);
    if (kind === 'color') onChange(from);
    else if (kind === 'two') onChange({ from, to: SECOND });
    else if (stills[0]) onChange({ footageId: stills[0].id });
  };
  const gradient = typeof value === 'object' && 'from' in value ? value : null;
  const picture = typeof value === 'object' && 'footageId' in value ? value : null;
  return (
    <>
      <SelectField
        label={label}
        value={kindOf(value)}
        options={[
          ['color', 'A colour'],
          ['two', 'Two colours'],
          ...(stills.length || picture ? [['picture', 'A picture of Footage'] as const] : []),
        ]}
        onChange={choose}
      />
      {typeof value === 'string' && (
        <ColorField label="Colour" value={value} onChange={(color) => onChange(color, true)} />
      )}
      {gradient && (
        <>
          <ColorField
            label="Upper left"
            value={gradient.from}
            onChange={(from) => onChange({ ...gradient, from }, true)}
          />
          <ColorField
            label="Lower right"
            value={gradient.to}
            onChange={(to) => onChange({ ...gradient, to }, true)}
          />
        </>
      )}
      {picture && (
        <StillField
          label="From Footage"
          value={picture.footageId}
          onChange={(footageId) => onChange({ footageId })}
        />
      )}
    </>
  );
}
