'use client';
import { useShallow } from 'zustand/react/shallow';
import type { Callout } from '@/core/project/model';
import { SelectField } from '../../parts/fields';
import { useEditor } from '../store';

/** Which still of the footage a picture shows. */
export function CalloutPicture({ callout }: { callout: Callout & { kind: 'picture' } }) {
  const { id, footageId, rect } = callout;
  const apply = useEditor((s) => s.apply);
  const sources = useEditor((s) => s.sources.footage);
  const stills = useEditor(
    useShallow((s) => Object.values(s.sources.footage).filter(({ kind }) => kind === 'image')),
  );
  const show = (other: string) => {
    const still = sources[other];
    if (!still) return;
    // As wide as it is, in the shape of what it shows now.
    const height = Math.max(2, (rect.width * still.height) / still.width);
    const y = rect.y + (rect.height - height) / 2;
    apply('change-callout', { id, change: { footageId: other, rect: { ...rect, y, height } } });
  };
  return (
    <>
      {!sources[footageId] && (
        <p className="text-xs text-caution" role="status">
          The picture is not in Footage any more. Choose another one.
        </p>
      )}
      <SelectField
        label="Shows"
        value={footageId}
        options={[
          ...(sources[footageId] ? [] : [[footageId, 'Missing'] as const]),
          ...stills.map((still) => [still.id, still.name] as const),
        ]}
        onChange={show}
      />
    </>
  );
}
