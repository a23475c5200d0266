'use client';
import { useEffect, useState } from 'react';
import { useRecord } from './record-store';

const LOOK_MS = 500;

/** Size of the screen that is shared, in its pixels; it may change while it is shared. */
export function useScreenSize(): { width: number; height: number } | null {
  const open = useRecord((s) => s.sources.screen.open);
  const [size, setSize] = useState<{ width: number; height: number } | null>(null);
  useEffect(() => {
    const look = () => {
      const practice = open?.practice && 'size' in open.practice ? open.practice.size : null;
      const { width, height } = practice ?? open?.track.getSettings() ?? {};
      setSize((now) =>
        !width || !height
          ? null
          : now?.width === width && now.height === height
            ? now
            : { width, height },
      );
    };
    const timer = setInterval(look, LOOK_MS);
    const first = setTimeout(look, 0);
    return () => {
      clearInterval(timer);
      clearTimeout(first);
    };
  }, [open]);
  return size;
}
