'use client';
import type { ComponentProps } from 'react';
import { TextField } from '../../parts/fields';
import { useEditor } from '../store';

/** A text of a thing of the project. Copies of a project have things of the same ids. */
export function TextOf({
  id,
  ...more
}: { id: string } & Omit<ComponentProps<typeof TextField>, 'of'>) {
  const projectId = useEditor((s) => s.id);
  return <TextField of={`${projectId} ${id}`} {...more} />;
}
