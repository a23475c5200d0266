'use client';
import { useQueryClient } from '@tanstack/react-query';
import { Pencil, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { call } from '@/contract/call';
import {
  deletePreset,
  renamePreset,
  savePreset,
  type Preset,
  type PresetKind,
  type PresetValues,
} from '@/contract/presets';
import { RenameDialog } from '../projects/RenameDialog';
import { tellFault } from '../shell/notices-store';
import { Button } from '../parts/Button';
import { inputLook } from '../parts/fields';
import { IconButton } from '../parts/IconButton';
import { PresetFiles } from './PresetFiles';
import { presetsKey, useSavedPresets } from './use-saved-presets';

/** What was saved of a kind, to use, rename and delete; and a field to save what is set now. */
export function SavedPresets<K extends PresetKind>({
  kind,
  title,
  one,
  now,
  describe,
  sketch,
  onUse,
}: {
  kind: K;
  /** What they are called together, as `Saved areas`. */
  title: string;
  /** One of them within a sentence, as `area`. */
  one: string;
  /** What would be saved; null when there is nothing to be saved. */
  now: PresetValues[K] | null;
  /** A few words on a value. */
  describe: (value: PresetValues[K]) => string;
  /** A small picture of a value. */
  sketch?: (value: PresetValues[K]) => React.ReactNode;
  onUse: (preset: Preset<PresetValues[K]>) => void;
}) {
  const client = useQueryClient();
  const [name, setName] = useState('');
  const [renaming, setRenaming] = useState<Preset | null>(null);
  const presets = useSavedPresets(kind);
  const refresh = () => client.invalidateQueries({ queryKey: presetsKey(kind) });
  const save = (value: PresetValues[K]) =>
    void call(savePreset, { params: { kind }, body: { name, value } }).then(() => {
      setName('');
      void refresh();
    }, tellFault);
  const field = `Name of this ${one}`;
  return (
    <>
      <ul aria-label={title} className="grid grid-cols-1 gap-1">
        {presets.data?.map((preset) => (
          <li key={preset.id} className="flex items-center gap-1">
            {sketch?.(preset.value)}
            <button
              className="min-w-16 flex-1 truncate text-left text-action underline"
              onClick={() => onUse(preset)}
            >
              {preset.name}
            </button>
            <span
              className="numbers max-w-1/2 truncate text-xs text-ink-2"
              title={describe(preset.value)}
            >
              {describe(preset.value)}
            </span>
            <IconButton
              icon={Pencil}
              label={`Rename ${preset.name}`}
              onClick={() => setRenaming(preset)}
            />
            <IconButton
              icon={Trash2}
              label={`Delete ${preset.name}`}
              onClick={() =>
                void call(deletePreset, { params: { kind, id: preset.id } }).then(
                  refresh,
                  tellFault,
                )
              }
            />
          </li>
        ))}
      </ul>
      <PresetFiles kind={kind} presets={presets.data ?? []} onRead={() => void refresh()} />
      {now && (
        <form
          className="flex gap-1.5"
          onSubmit={(e) => {
            e.preventDefault();
            if (name.trim()) save(now);
          }}
        >
          <input
            aria-label={field}
            placeholder={field}
            className={inputLook}
            value={name}
            onChange={(e) => setName(e.target.value)}
          />
          <Button type="submit" aria-label={`Save ${one}`} disabled={!name.trim()}>
            Save
          </Button>
        </form>
      )}
      {renaming && (
        <RenameDialog
          name={renaming.name}
          hint={`${title} can be used in every project.`}
          onClose={() => setRenaming(null)}
          onRename={(next) =>
            void call(renamePreset, {
              ...{ params: { kind, id: renaming.id }, body: { name: next } },
            }).then(refresh, tellFault)
          }
        />
      )}
    </>
  );
}
