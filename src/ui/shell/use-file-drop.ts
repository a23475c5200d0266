'use client';
import { fromEvent } from 'file-selector';
import { useEffect, useRef, useState } from 'react';
import { tellFault } from './notices-store';

/**
 * Takes files and folders that are dropped anywhere on the page, which a browser would else open in
 * its place; answers whether some hover over it.
 */
export function useFileDrop(onFiles: (files: readonly File[]) => void): boolean {
  const [over, setOver] = useState(false);
  const take = useRef(onFiles);
  useEffect(() => {
    take.current = onFiles;
  });
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
      void fromEvent(e).then(
        (all) => {
          const files = all.filter((one) => one instanceof File);
          if (files.length) take.current(files);
          else tellFault('There is no file in what was dropped.');
        },
        () => tellFault('What was dropped can’t be read. Try it with the files themselves.'),
      );
    };
    window.addEventListener('dragover', onOver);
    window.addEventListener('dragleave', onLeave);
    window.addEventListener('drop', onDrop);
    return () => {
      window.removeEventListener('dragover', onOver);
      window.removeEventListener('dragleave', onLeave);
      window.removeEventListener('drop', onDrop);
    };
  }, []);
  return over;
}
