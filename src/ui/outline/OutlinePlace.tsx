'use client';
import { useState } from 'react';
import { AllKeys } from '../edit/AllKeys';
import { OpenProject, type ProjectPage } from '../edit/OpenProject';
import { SaveBadge, SaveBanner } from '../edit/SaveBadge';
import { useEditor } from '../edit/store';
import { Button } from '../parts/Button';
import { PlaceFrame } from '../shell/PlaceFrame';
import { PlaceHeader } from '../shell/PlaceHeader';
import { OutlineToolbar } from './OutlineToolbar';
import type { Pasted } from './clipboard';
import { PasteDialog } from './PasteDialog';
import { Prompter } from './Prompter';
import { StepTable } from './StepTable';
import { TargetPanel } from './TargetPanel';
import { useOutlineKeys } from './use-outline-keys';

export function OutlinePlace(props: ProjectPage) {
  return (
    <OpenProject {...props} place="Outline">
      <Outline />
    </OpenProject>
  );
}

function Outline() {
  const id = useEditor((s) => s.id);
  const name = useEditor((s) => s.name);
  const [pasting, setPasting] = useState<Pasted | null>(null);
  const [prompting, setPrompting] = useState(false);
  const [keys, setKeys] = useState(false);
  useOutlineKeys(setPasting, () => setKeys(true));
  return (
    <PlaceFrame rows="grid-rows-[40px_40px_minmax(0,1fr)]">
      <PlaceHeader id={id} name={name} place="Outline">
        <SaveBadge />
        <Button look="quiet" onClick={() => setKeys(true)}>
          Keys
        </Button>
      </PlaceHeader>
      <OutlineToolbar
        onPaste={() => setPasting({ text: '', grid: null })}
        onPrompter={() => setPrompting(true)}
      />
      <div className="grid min-h-0 grid-cols-[minmax(0,1fr)_340px]">
        <StepTable onPaste={() => setPasting({ text: '', grid: null })} />
        <TargetPanel />
      </div>
      {pasting && <PasteDialog pasted={pasting} onClose={() => setPasting(null)} />}
      {prompting && <Prompter onClose={() => setPrompting(false)} />}
      <AllKeys open={keys} onClose={() => setKeys(false)} place="Outline" />
      <SaveBanner />
    </PlaceFrame>
  );
}
