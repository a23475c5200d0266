'use client';
import { ChevronLeft, ChevronRight, Pause, Play, SkipBack } from 'lucide-react';
import { useState } from 'react';
import { SHARPNESS_WORDS } from '../sharpness-words';
import { readScale } from '@/core/frame/reading';
import { projectDuration } from '@/core/project/query';
import { frameDuration } from '@/core/time/ticks';
import { formatTimecode, parseTimecode } from '@/core/time/timecode';
import type { Player } from '@/preview/player';
import { IconButton } from '../../parts/IconButton';
import { tellFault } from '../../shell/notices-store';
import { useCommands } from '../commands/use-commands';
import { playheadOf, useAtPlayhead, useEditor, useEditorStore, useTransport } from '../store';
import { PreviewSize } from './PreviewSize';
import { useSeek } from './use-player';
import { Volume } from './Volume';

export function Transport({ player }: { player: Player | null }) {
  const store = useEditorStore();
  const seek = useSeek();
  const rate = useTransport((t) => t.rate);
  const frames = useTransport((t) => t.frames);
  const frameRate = useEditor((s) => s.project.canvas.frameRate);
  const commands = useCommands(player);
  const keysOf = (id: string) => commands.get(id)?.keys[0];
  const step = (by: number) => seek(playheadOf(store.getState()) + by * frameDuration(frameRate));
  return (
    <div className="flex items-center gap-1 overflow-hidden border-t border-line bg-sheet px-2">
      <Timecode onTime={seek} />
      <IconButton
        icon={SkipBack}
        label="To the start"
        keys={keysOf('start')}
        onClick={() => seek(0)}
      />
      <IconButton
        icon={ChevronLeft}
        label="One frame back"
        keys={keysOf('frame-back')}
        onClick={() => step(-1)}
      />
      <IconButton
        icon={rate ? Pause : Play}
        label={rate ? 'Pause' : 'Play'}
        keys={keysOf('play')}
        onClick={() => void player?.play(rate ? 0 : 1)}
      />
      <IconButton
        icon={ChevronRight}
        label="One frame on"
        keys={keysOf('frame-on')}
        onClick={() => step(1)}
      />
      <Volume player={player} />
      <PreviewSize player={player} />
      {rate !== 0 && rate !== 1 && <span className="numbers text-xs">{rate}×, no sound</span>}
      <span className="ml-auto flex flex-col items-end leading-4">
        <Reading />
        {frames.dropped > 0 && (
          <span
            className="numbers text-[11px] whitespace-nowrap text-caution"
            title="The preview left these out to stay with the sound. The export has every frame."
          >
            {frames.dropped} of {frames.dropped + frames.shown} frames dropped
          </span>
        )}
      </span>
    </div>
  );
}

function Timecode({ onTime }: { onTime: (time: number) => void }) {
  const store = useEditorStore();
  const playhead = useTransport((t) => t.playhead);
  const rate = useEditor((s) => s.project.canvas.frameRate);
  const [draft, setDraft] = useState<string | null>(null);
  const done = () => {
    if (draft !== null) {
      const time = parseTimecode(draft, rate);
      if (time === null)
        tellFault(
          'Type a time as 12, 1:05, 12.5 or 00:00:12:04 (hours, minutes, seconds, frames).',
        );
      else onTime(Math.min(time, projectDuration(store.getState().project)));
    }
    setDraft(null);
  };
  return (
    <input
      aria-label="Timecode"
      className="numbers w-32 rounded-(--radius) border border-transparent bg-transparent px-1 py-0.5 text-base hover:border-line focus:border-action"
      value={draft ?? formatTimecode(playhead, rate)}
      onFocus={(e) => {
        setDraft(e.target.value);
        e.target.select();
      }}
      onChange={(e) => setDraft(e.target.value)}
      onBlur={done}
      onKeyDown={(e) => {
        if (e.key === 'Enter') e.currentTarget.blur();
        if (e.key === 'Escape') setDraft(null);
      }}
    />
  );
}

/** The sharpness reading at the playhead. */
function Reading() {
  const text = useAtPlayhead((s, playhead) => {
    const reading = readScale(s.project, s.sources, playhead);
    return reading
      ? `${reading.sharpness}|screen ${reading.magnification.toFixed(2)}×, ${SHARPNESS_WORDS[reading.sharpness]}|${Math.round(reading.scale * 100)} % of the recording’s pixels`
      : 'none|no screen here|';
  });
  const [kind, words, detail] = text.split('|') as [string, string, string];
  return (
    <span
      data-testid="scale-reading"
      title={detail}
      className={`numbers text-xs whitespace-nowrap ${kind === 'soft' ? 'font-semibold text-caution' : kind === 'none' ? 'text-ink-2' : 'text-good'}`}
    >
      {words}
    </span>
  );
}
