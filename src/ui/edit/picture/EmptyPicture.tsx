'use client';
import { Upload } from 'lucide-react';
import { useRef } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { Button } from '../../parts/Button';
import { ChooseFiles } from '../panel/footage/ChooseFiles';
import { Progress } from '../panel/footage/Progress';
import { useEditor } from '../store';
import { useUploads } from '../upload-store';

/** Stands in the Picture while nothing is on the timeline: what to do, or what is being done. */
export function EmptyPicture() {
  const id = useEditor((s) => s.id);
  const arriving = useEditor((s) => s.arriving);
  const some = useEditor((s) => s.footage.length > 0);
  const set = useEditor((s) => s.set);
  const looking = useEditor((s) => s.footage.some((f) => f.status === 'waiting' && !f.facts));
  const sent = useUploads(
    useShallow((s) => s.items.filter((i) => i.projectId === id && i.state !== 'failed')),
  );
  const input = useRef<HTMLInputElement>(null);
  const share = sent.reduce((sum, item) => sum + item.share, 0) / (sent.length || 1);
  const busy = sent.length > 0 || looking || arriving;
  return (
    <div className="absolute inset-0 flex flex-col items-center justify-center gap-3 bg-paper p-6 text-center">
      {busy ? (
        <span className="w-64" role="status">
          <Progress
            share={sent.length ? share : 1}
            label={
              sent.length
                ? `Uploading ${sent.length === 1 ? sent[0]!.name : `${sent.length} recordings`}, ${Math.round(share * 100)} %`
                : (arriving ?? 'Looking at the recordings…')
            }
          />
        </span>
      ) : (
        <>
          <p className="text-base font-semibold">Nothing on the timeline yet</p>
          <p className="max-w-96 text-ink-2">
            {some
              ? 'Place recordings from Footage, or bring more. Drag them onto the timeline, or press + beside one.'
              : 'Drop your screen and camera recordings here. They are lined up by their sound and placed.'}
          </p>
          <span className="flex gap-2">
            <Button look="primary" onClick={() => input.current?.click()}>
              <Upload size={14} aria-hidden /> Choose recordings
            </Button>
            {some && <Button onClick={() => set({ panel: 'footage' })}>Open Footage</Button>}
          </span>
        </>
      )}
      <ChooseFiles field={input} label="Recordings to begin with" />
    </div>
  );
}
