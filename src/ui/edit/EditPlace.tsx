'use client';
import { PlaceFrame } from '../shell/PlaceFrame';
import { PlaceHeader } from '../shell/PlaceHeader';
import { AllKeys } from './AllKeys';
import { CommandList } from './CommandList';
import { ExportDialog } from '../publish/ExportDialog';
import { FreezeDialog } from './FreezeDialog';
import { HistoryDialog } from './HistoryDialog';
import { Panels } from './Panels';
import { SidePanel } from './panel/SidePanel';
import { Picture } from './picture/Picture';
import { Transport } from './picture/Transport';
import { usePlayer } from './picture/use-player';
import { RetakeDialog } from './retake/RetakeDialog';
import { SaveBadge, SaveBanner } from './SaveBadge';
import { OpenProject, type ProjectPage } from './OpenProject';
import { useEditor } from './store';
import { Timeline } from './timeline/Timeline';
import { useKeys } from './use-keys';
import { useSavedLayouts } from './use-saved-layouts';
import { Button } from '../parts/Button';

export function EditPlace(props: ProjectPage) {
  return (
    <OpenProject {...props} place="Edit">
      <Workbench />
    </OpenProject>
  );
}

function Workbench() {
  const name = useEditor((s) => s.name);
  const id = useEditor((s) => s.id);
  const dialog = useEditor((s) => s.dialog);
  const set = useEditor((s) => s.set);
  const { canvasRef, player } = usePlayer();
  useKeys(player);
  useSavedLayouts();
  const close = () => set({ dialog: null });
  return (
    <PlaceFrame rows="grid-rows-[40px_minmax(0,1fr)]">
      <PlaceHeader id={id} name={name} place="Edit">
        <SaveBadge />
        <Button look="quiet" onClick={() => set({ dialog: 'commands' })}>
          Commands
        </Button>
        <Button look="primary" onClick={() => set({ dialog: 'export' })}>
          Export
        </Button>
      </PlaceHeader>
      <Panels
        picture={
          <section
            aria-label="Picture"
            className="@container grid h-full min-h-0 grid-cols-[minmax(0,1fr)] grid-rows-[minmax(0,1fr)_36px]"
          >
            <Picture canvasRef={canvasRef} player={player} />
            <Transport player={player} />
          </section>
        }
        side={<SidePanel />}
        timeline={<Timeline player={player} />}
      />
      <SaveBanner />
      <ExportDialog open={dialog === 'export'} onClose={close} />
      <CommandList open={dialog === 'commands'} onClose={close} player={player} />
      <AllKeys open={dialog === 'keys'} onClose={close} place="Edit" />
      <HistoryDialog open={dialog === 'history'} onClose={close} />
      <FreezeDialog open={dialog === 'freeze'} onClose={close} />
      {dialog === 'retake' && <RetakeDialog onClose={close} player={player} />}
    </PlaceFrame>
  );
}
