'use client';
import { useEffect, useState } from 'react';
import type { StoreApi } from 'zustand';
import { OpenProject, type ProjectPage } from '../edit/OpenProject';
import { SaveBadge, SaveBanner } from '../edit/SaveBadge';
import { AllKeys } from '../edit/AllKeys';
import { useEditor, useEditorStore } from '../edit/store';
import { Button } from '../parts/Button';
import { PlaceFrame } from '../shell/PlaceFrame';
import { PlaceHeader } from '../shell/PlaceHeader';
import type { RecordState } from './record-state';
import { createRecordStore, RecordProvider, useRecord } from './record-store';
import { RescueBanner } from './RescueBanner';
import { Review } from './Review';
import { SetupPanel } from './SetupPanel';
import { Stage } from './Stage';
import { StepRail } from './StepRail';
import { TakesDrawer } from './TakesDrawer';
import { TakeTransport } from './TakeTransport';
import { useRecordKeys } from './use-record-keys';

export function RecordPlace(props: ProjectPage) {
  return (
    <OpenProject {...props} place="Record">
      <Session />
    </OpenProject>
  );
}

function Session() {
  const editor = useEditorStore();
  const [store, setStore] = useState<StoreApi<RecordState> | null>(null);
  useEffect(() => {
    const made = createRecordStore(editor);

    setStore(made);
    return () => made.getState().dispose();
  }, [editor]);
  return (
    store && (
      <RecordProvider value={store}>
        <Record />
      </RecordProvider>
    )
  );
}

function Record() {
  const id = useEditor((s) => s.id);
  const name = useEditor((s) => s.name);
  const phase = useRecord((s) => s.phase);
  const [keys, setKeys] = useState(false);
  useRecordKeys();
  useEffect(() => {
    if (phase !== 'recording' && phase !== 'paused') return;
    const warn = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener('beforeunload', warn);
    return () => window.removeEventListener('beforeunload', warn);
  }, [phase]);
  return (
    <PlaceFrame rows="grid-rows-[40px_auto_minmax(0,1fr)]">
      <PlaceHeader id={id} name={name} place="Record">
        <SaveBadge />
        <Button look="quiet" onClick={() => setKeys(true)}>
          Keys
        </Button>
      </PlaceHeader>
      <RescueBanner />
      <div className="grid min-h-0 grid-cols-[272px_minmax(0,1fr)_284px]">
        <SetupPanel />
        <div className="grid min-h-0 grid-rows-[minmax(0,1fr)_auto_minmax(96px,150px)] border-x border-line">
          {phase === 'review' ? <Review /> : <Stage />}
          {phase !== 'review' && <TakeTransport />}
          <TakesDrawer />
        </div>
        <StepRail />
      </div>
      <AllKeys open={keys} onClose={() => setKeys(false)} place="Record" />
      <SaveBanner />
    </PlaceFrame>
  );
}
