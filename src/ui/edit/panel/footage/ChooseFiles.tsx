'use client';
import type { RefObject } from 'react';
import { bringFiles } from '../../bring-files';
import { useEditorStore } from '../../store';

/** What a dialog for files offers to choose. */
const ACCEPTED =
  '.mp4,.mov,.m4v,.mkv,.webm,.ogg,.ogv,.avi,.wav,.mp3,.m4a,.aac,.flac,.oga,.opus,' +
  '.png,.jpg,.jpeg,.webp,.svg';

/** The field behind a button that brings recordings: pressed by it, never seen. */
export function ChooseFiles({
  field,
  label,
}: {
  field: RefObject<HTMLInputElement | null>;
  label: string;
}) {
  const store = useEditorStore();
  return (
    <input
      ref={field}
      type="file"
      multiple
      accept={ACCEPTED}
      className="hidden"
      aria-label={label}
      onChange={(e) => {
        bringFiles(store, [...(e.target.files ?? [])]);
        e.target.value = '';
      }}
    />
  );
}
