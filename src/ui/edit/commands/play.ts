import { projectDuration, placedSteps } from '@/core/project/query';
import { clipEnd } from '@/core/project/clip-time';
import { TICKS_PER_SECOND, type Ticks } from '@/core/time/ticks';
import type { Command, CommandContext } from './context';

/** Playing and going to places on the timeline. */
export function playCommands(c: CommandContext): Command[] {
  const play = (rate: number) => void c.player?.play(rate);
  const jump = (times: () => readonly Ticks[], on: boolean) => () => {
    const { playhead } = c;
    const sorted = [...times()].sort((a, b) => a - b);
    const to = on ? sorted.find((t) => t > playhead) : sorted.findLast((t) => t < playhead);
    if (to !== undefined) c.seek(to);
  };
  const steps = () => placedSteps(c.state.project).map((s) => s.start);
  const markers = () => c.state.project.markers.map((m) => m.time);
  const cuts = () =>
    c.state.project.lanes.flatMap((l) => l.clips.flatMap((clip) => [clip.start, clipEnd(clip)]));
  return [
    { id: 'play', label: 'Play or pause', keys: ['Space'], run: () => play(c.rate ? 0 : 1) },
    {
      id: 'shuttle-back',
      label: 'Play backwards',
      keys: ['J'],
      run: () => play(c.rate < 0 ? Math.max(-4, c.rate * 2) : -1),
    },
    { id: 'pause', label: 'Pause', keys: ['K'], run: () => play(0) },
    {
      id: 'shuttle-on',
      label: 'Play, faster at each press',
      keys: ['L'],
      run: () => play(c.rate > 0 ? Math.min(4, c.rate * 2) : 1),
    },
    {
      id: 'frame-back',
      label: 'One frame back',
      keys: ['ArrowLeft'],
      run: () => c.seek(c.here - c.frame),
    },
    {
      id: 'frame-on',
      label: 'One frame on',
      keys: ['ArrowRight'],
      run: () => c.seek(c.here + c.frame),
    },
    {
      id: 'second-back',
      label: 'One second back',
      keys: ['Shift+ArrowLeft'],
      run: () => c.seek(c.playhead - TICKS_PER_SECOND),
    },
    {
      id: 'second-on',
      label: 'One second on',
      keys: ['Shift+ArrowRight'],
      run: () => c.seek(c.playhead + TICKS_PER_SECOND),
    },
    { id: 'start', label: 'To the start', keys: ['Home'], run: () => c.seek(0) },
    {
      id: 'end',
      label: 'To the end',
      keys: ['End'],
      run: () => c.seek(projectDuration(c.state.project)),
    },
    { id: 'step-back', label: 'To the step before', keys: ['PageUp'], run: jump(steps, false) },
    { id: 'step-on', label: 'To the next step', keys: ['PageDown'], run: jump(steps, true) },
    {
      id: 'marker-back',
      label: 'To the marker before',
      keys: ['Shift+PageUp'],
      run: jump(markers, false),
    },
    {
      id: 'marker-on',
      label: 'To the next marker',
      keys: ['Shift+PageDown'],
      run: jump(markers, true),
    },
    { id: 'cut-back', label: 'To the cut before', keys: ['Mod+ArrowLeft'], run: jump(cuts, false) },
    { id: 'cut-on', label: 'To the next cut', keys: ['Mod+ArrowRight'], run: jump(cuts, true) },
  ];
}
