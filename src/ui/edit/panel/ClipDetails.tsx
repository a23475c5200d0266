'use client';
import { setClipGain, unlinkClip } from '@/core/edit/clips';
import { findClip, isPictureLane } from '@/core/project/query';
import { formatTimecode } from '@/core/time/timecode';
import { Button } from '../../parts/Button';
import { SliderField } from '../../parts/fields';
import { useEditor } from '../store';
import { Heading } from './Heading';
import { LookDetails } from './LookDetails';
import { PresenterDetails } from './PresenterDetails';

export function ClipDetails({ id }: { id: string }) {
  const found = useEditor((s) => findClip(s.project, id));
  const footage = useEditor((s) => (found ? s.sources.footage[found.clip.footageId] : undefined));
  const rate = useEditor((s) => s.project.canvas.frameRate);
  const edit = useEditor((s) => s.edit);
  if (!found) return null;
  const { clip, lane } = found;
  return (
    <div className="grid gap-3">
      <div>
        <Heading title={footage?.name ?? 'Missing footage'}>
          {clip.link && (
            <Button
              onClick={() => edit('Unlink', (draft) => unlinkClip(draft, id))}
              title="Picture and sound of this recording then move and trim by themselves"
            >
              Unlink
            </Button>
          )}
        </Heading>
        <p className="numbers text-xs text-ink-2">
          {lane.name} · from {formatTimecode(clip.start, rate)} · {formatTimecode(clip.duration, rate)} long · begins{' '}
          {formatTimecode(clip.source, rate)} into its footage
        </p>
      </div>
      {!isPictureLane(lane) && (
        <SliderField
          label="Level"
          value={clip.gain}
          min={-40}
          max={12}
          step={0.5}
          unit="dB"
          onChange={(gain) => edit('Clip level', (draft) => setClipGain(draft, id, gain), true)}
        />
      )}
      {isPictureLane(lane) && footage && <LookDetails footage={footage} />}
      {lane.kind === 'presenter' && <PresenterDetails footageId={clip.footageId} />}
    </div>
  );
}
