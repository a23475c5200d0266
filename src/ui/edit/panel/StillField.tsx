'use client';
import { useShallow } from 'zustand/react/shallow';
import { SelectField } from '../../parts/fields';
import { useEditor } from '../store';

/** The stills of Footage, in its order. */
export const useStills = () =>
  useEditor(
    useShallow((s) => Object.values(s.sources.footage).filter(({ kind }) => kind === 'image')),
  );

/** Which of the stills of Footage is shown; one that is gone is said to be missing. */
export function StillField({
  label = 'Picture',
  value,
  onChange,
}: {
  readonly label?: string;
  readonly value: string;
  readonly onChange: (footageId: string) => void;
}) {
  const stills = useStills();
  return (
    <SelectField
      label={label}
      value={value}
      options={[
        ...(stills.some(({ id }) => id === value) ? [] : [[value, 'Missing'] as const]),
        ...stills.map(({ id, name }) => [id, name] as const),
      ]}
      onChange={onChange}
    />
  );
}
