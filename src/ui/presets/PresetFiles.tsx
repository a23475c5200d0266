'use client';
import { Download, Upload } from 'lucide-react';
import { useRef } from 'react';
import { call } from '@/contract/call';
import { savePreset, type Preset, type PresetKind } from '@/contract/presets';
import { tell, tellFault } from '../shell/notices-store';
import { Button } from '../parts/Button';
import { saveAs } from '../parts/save-as';
import { freeName, presetFile, readPresetFile } from './preset-file';

/** Takes what was saved of a kind to another machine, and over from one. */
export function PresetFiles({
  kind,
  presets,
  onRead,
}: {
  kind: PresetKind;
  presets: readonly Preset[];
  onRead: () => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  const read = async (file: File) => {
    try {
      const taken = new Set(presets.map(({ name }) => name));
      const found = readPresetFile(kind, await file.text());
      for (const { name, value } of found) {
        const free = freeName(name, taken);
        taken.add(free);
        await call(savePreset, { params: { kind }, body: { name: free, value } });
      }
      tell(`${found.length} taken over from ${file.name}.`);
    } catch (error) {
      tellFault(error);
    } finally {
      onRead();
    }
  };
  return (
    <div className="flex flex-wrap gap-1.5">
      {presets.length > 0 && (
        <Button
          onClick={() =>
            saveAs(`vistum-${kind}.json`, 'application/json', presetFile(kind, presets))
          }
        >
          <Download size={14} aria-hidden /> To a file
        </Button>
      )}
      <Button onClick={() => input.current?.click()}>
        <Upload size={14} aria-hidden /> From a file
      </Button>
      <input
        ref={input}
        type="file"
        accept="application/json,.json"
        hidden
        onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = '';
          if (file) void read(file);
        }}
      />
    </div>
  );
}
