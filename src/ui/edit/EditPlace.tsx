'use client';
import { useState } from 'react';
import { PlaceHeader } from '../shell/PlaceHeader';
import { CommandList } from './CommandList';
import { ExportDialog } from '../publish/ExportDialog';
import { KeyTable } from './KeyTable';
import { SidePanel } from './panel/SidePanel';
import { Picture } from './picture/Picture';
import { Transport } from './picture/Transport';
import { usePlayer } from './picture/use-player';
import { SaveBadge, StaleBanner } from './SaveBadge';
import { OpenProject } from './OpenProject';
import { useEditor } from './store';
import { Timeline } from './timeline/Timeline';
import { useKeys } from './use-keys';
import { useFileDrop } from './use-file-drop';
import { Button } from '../parts/Button';

export function EditPlace({ id }: { id: string }) {
  return (
    <OpenProject id={id}>
      <Workbench />
    </OpenProject>
  );
}

function Workbench() {
  const name = useEditor((s) => s.name);
  const id = useEditor((s) => s.id);
  const [exporting, setExporting] = useState(false);
  const [commands, setCommands] = useState(false);
  const [keys, setKeys] = useState(false);
  const { canvasRef, player } = usePlayer();
  const openers = { commands: () => setCommands(true), keys: () => setKeys(true), exporting: () => setExporting(true) };
  useKeys(player, openers);
  const over = useFileDrop();
  return (
    <div className="grid h-screen grid-rows-[40px_auto_minmax(0,1fr)] overflow-hidden">
      <PlaceHeader id={id} name={name} place="Edit">
        <SaveBadge />
        <Button look="quiet" onClick={openers.commands}>
          Commands
        </Button>
        <Button look="primary" onClick={openers.exporting}>
          Export
        </Button>
      </PlaceHeader>
      <div className="grid h-[max(300px,calc(100vh-384px))] grid-cols-[minmax(0,58fr)_minmax(340px,42fr)] border-b border-line">
        <section aria-label="Picture" className="grid min-h-0 grid-rows-[minmax(0,1fr)_36px] border-r border-line">
          <Picture canvasRef={canvasRef} player={player} />
          <Transport player={player} />
        </section>
        <SidePanel />
      </div>
      <Timeline player={player} />
      <StaleBanner />
      {over && (
        <div className="pointer-events-none fixed inset-0 z-30 flex items-center justify-center border-4 border-action bg-paper/80 text-xl font-semibold">
          Drop recordings to add them to Footage
        </div>
      )}
      <ExportDialog open={exporting} onClose={() => setExporting(false)} />
      <CommandList open={commands} onClose={() => setCommands(false)} player={player} openers={openers} />
      <KeyTable open={keys} onClose={() => setKeys(false)} player={player} openers={openers} />
    </div>
  );
}
