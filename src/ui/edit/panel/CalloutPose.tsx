'use client';
import { Bookmark, X } from 'lucide-react';
import { keptAt, Pose, poseAt } from '@/core/callout/keyframes';
import { poseSettings } from '@/core/callout/moved';
import type { Callout } from '@/core/project/model';
import { contains } from '@/core/time/ranges';
import { formatTimecode } from '@/core/time/timecode';
import { frameDuration } from '@/core/time/ticks';
import { Button } from '../../parts/Button';
import { IconButton } from '../../parts/IconButton';
import { SettingFields } from '../../parts/setting-fields';
import { useSeek } from '../picture/use-player';
import { CalloutPlace } from './CalloutPlace';
import { useEditor, useTransport } from '../store';

/** How large, how turned and how see-through a callout is, and where that is kept in time. */
export function CalloutPose({ callout }: { callout: Callout }) {
  const { id, keyframes } = callout;
  const apply = useEditor((s) => s.apply);
  const rate = useEditor((s) => s.project.canvas.frameRate);
  const playhead = useTransport((t) => t.playhead);
  const seek = useSeek();
  const at = playhead - callout.start;
  const here = keptAt(keyframes, at, frameDuration(rate) / 2);
  const isThere = contains(callout, playhead);
  return (
    <fieldset className="grid grid-cols-1 gap-2 border-t border-line pt-2">
      <legend className="font-semibold">{keyframes.length ? 'At the playhead' : 'Place'}</legend>
      <CalloutPlace callout={callout} />
      <SettingFields
        schema={Pose}
        value={poseAt(callout, at)}
        only={poseSettings(callout)}
        onChange={(change, run) => apply('change-pose', { id, time: playhead, change }, run)}
      />
      <p className="text-xs text-ink-2">
        {keyframes.length
          ? 'What is moved or set now is kept at the playhead; in between it goes over from one to the other.'
          : 'Keep its place at two times, and it goes over from one to the other.'}
      </p>
      <Button
        disabled={!isThere || !!here}
        onClick={() => apply('keep-pose', { id, time: playhead })}
      >
        <Bookmark size={14} aria-hidden /> Keep here
      </Button>
      {keyframes.length > 0 && (
        <ul aria-label="Kept places" className="grid gap-1">
          {keyframes.map((one) => {
            const time = callout.start + one.at;
            const text = formatTimecode(Math.max(0, time), rate);
            return (
              <li key={one.at} className="flex items-center gap-1">
                <button
                  className="numbers flex-1 text-left text-action underline aria-[current=true]:font-semibold"
                  aria-current={one === here}
                  onClick={() => seek(Math.max(0, time))}
                >
                  {text}
                </button>
                <IconButton
                  icon={X}
                  label={`No longer keep at ${text}`}
                  onClick={() => apply('drop-pose', { id, at: one.at })}
                />
              </li>
            );
          })}
        </ul>
      )}
    </fieldset>
  );
}
