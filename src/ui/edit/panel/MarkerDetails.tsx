'use client';
import { MARKER_COLORS } from '@/core/edit/markers';
import { Marker } from '@/core/project/parts/step';
import { Button } from '../../parts/Button';
import { useEditor } from '../store';
import { Heading } from './Heading';
import { TextOf } from './TextOf';

export function MarkerDetails({ id }: { id: string }) {
  const marker = useEditor((s) => s.project.markers.find((m) => m.id === id));
  const apply = useEditor((s) => s.apply);
  if (!marker) return null;
  return (
    <div className="grid gap-2">
      <Heading title="Marker" />
      <TextOf
        id={id}
        label="Name"
        value={marker.name}
        most={Marker.properties.name.maxLength}
        onDone={(name) => apply('change-marker', { id, change: { name } })}
      />
      <div className="flex items-center gap-1" role="group" aria-label="Colour">
        <span className="w-30 text-ink-2">Colour</span>
        {MARKER_COLORS.map((color) => (
          <button
            key={color}
            aria-label={`Colour ${color}`}
            aria-pressed={marker.color === color}
            className={`size-6 border-2 ${marker.color === color ? 'border-ink' : 'border-transparent'}`}
            style={{ backgroundColor: color }}
            onClick={() => apply('change-marker', { id, change: { color } })}
          />
        ))}
      </div>
      <Button onClick={() => apply('remove-marker', { id })}>Remove marker</Button>
    </div>
  );
}
