'use client';
import { removeMarker, renameMarker } from '@/core/edit/markers';
import { Button } from '../../parts/Button';
import { TextField } from '../../parts/fields';
import { useEditor } from '../store';
import { Heading } from './Heading';

export function MarkerDetails({ id }: { id: string }) {
  const marker = useEditor((s) => s.project.markers.find((m) => m.id === id));
  const edit = useEditor((s) => s.edit);
  if (!marker) return null;
  return (
    <div className="grid gap-2">
      <Heading title="Marker" />
      <TextField label="Name" value={marker.name} onDone={(name) => edit('Rename marker', (draft) => renameMarker(draft, id, name))} />
      <Button onClick={() => edit('Remove marker', (draft) => removeMarker(draft, id))}>Remove marker</Button>
    </div>
  );
}
