'use client';
import { useEffect, useState } from 'react';
import { useEditorStore } from './store';
import { useUploads } from './upload-store';

/** Takes files that are dropped anywhere on the page; answers whether some hover over it. */
export function useFileDrop(): boolean {
  const store = useEditorStore();
  const [over, setOver] = useState(false);
  useEffect(() => {
    const holdsFiles = (e: DragEvent) => e.dataTransfer?.types.includes('Files') ?? false;
    const onOver = (e: DragEvent) => {
      if (!holdsFiles(e)) return;
      e.preventDefault();
      setOver(true);
    };
    const onLeave = (e: DragEvent) => {
      if (!e.relatedTarget) setOver(false);
    };
    const onDrop = (e: DragEvent) => {
      if (!holdsFiles(e)) return;
      e.preventDefault();
      setOver(false);
      const { id } = store.getState();
      useUploads.getState().add(id, [...(e.dataTransfer?.files ?? [])]);
      store.setState({ panel: 'footage' });
    };
    window.addEventListener('dragover', onOver);
    window.addEventListener('dragleave', onLeave);
    window.addEventListener('drop', onDrop);
    return () => {
      window.removeEventListener('dragover', onOver);
      window.removeEventListener('dragleave', onLeave);
      window.removeEventListener('drop', onDrop);
    };
  }, [store]);
  return over;
}
