'use client';
import { Pause, Play, Plus } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { call } from '@/contract/call';
import { addBed, bedSound } from '@/contract/footage';
import { address } from '@/contract/route';
import { BEDS, BED_NAMES, type BedName } from '@/core/audio/bed';
import { formatClock } from '@/core/time/timecode';
import { Dialog } from '../../../parts/Dialog';
import { IconButton } from '../../../parts/IconButton';
import { tell, tellFault } from '../../../shell/notices-store';
import { useEditor } from '../../store';

/** Music beds that come with Vistum: to be heard, and added to Footage. */
export function MusicShelf({ open, onClose }: { open: boolean; onClose: () => void }) {
  const id = useEditor((s) => s.id);
  const audio = useRef<HTMLAudioElement>(null);
  const [playing, setPlaying] = useState<BedName | null>(null);
  useEffect(() => {
    const element = audio.current;
    if (!element) return;
    if (!open || !playing) return element.pause();
    element.src = address(bedSound, { name: playing });
    void element.play().catch(() => {});
  }, [open, playing]);
  const add = (name: BedName) =>
    call(addBed, { params: { id }, body: { name } }).then(
      () => tell(`“${BEDS[name].title}” is being added to Footage.`),
      tellFault,
    );
  return (
    <Dialog
      open={open}
      onClose={() => {
        setPlaying(null);
        onClose();
      }}
      title="Music shelf"
      description="Quiet beds made for speaking over. They are synthesised by Vistum and free to use."
    >
      <audio ref={audio} loop />
      <ul aria-label="Music beds">
        {BED_NAMES.map((name) => (
          <li key={name} className="flex items-center gap-2 border-b border-line py-1.5">
            <IconButton
              icon={playing === name ? Pause : Play}
              label={playing === name ? `Stop ${BEDS[name].title}` : `Hear ${BEDS[name].title}`}
              onClick={() => setPlaying(playing === name ? null : name)}
            />
            <span className="flex-1">{BEDS[name].title}</span>
            <span className="numbers text-ink-2">
              {formatClock(BEDS[name].bar * BEDS[name].bars)}
            </span>
            <IconButton
              icon={Plus}
              label={`Add ${BEDS[name].title} to Footage`}
              onClick={() => void add(name)}
            />
          </li>
        ))}
      </ul>
    </Dialog>
  );
}
