import { PLAIN_LINES } from '../callout/kinds/two-points';
import { UNPOSED } from '../callout/keyframes';
import { findClip } from '../project/query';
import { USUAL_MOTION } from '../callout/motion';
import type { Project } from '../project/model';
import { EditError } from './error';
import { counter, demoProject, FRAME, frame } from './fixture';
import { changeSeveral, type SharedChange } from './several';
import { addSpan } from './spans';

const newId = counter();
const lane = (p: Project, kind: string) => p.lanes.find((l) => l.kind === kind)!;
const change = (p: Project, ids: readonly string[], what: SharedChange) =>
  changeSeveral(p, ids, what, { frame: FRAME, newId });

test('each clip takes what it has: levels go to sound only', () => {
  const p = demoProject(newId);
  const [voice, music, screen] = ['voice', 'music', 'screen'].map((k) => lane(p, k).clips[0]!);
  change(p, [voice!.id, music!.id, screen!.id], { clips: { gain: -7, fadeIn: frame(9) } });
  expect([voice!.gain, music!.gain, screen!.gain]).toEqual([-7, -7, 0]);
  expect([voice!.fadeIn, music!.fadeIn, screen!.fadeIn]).toEqual([frame(9), frame(9), 0]);
});

test('a fade that is not named stays as it is for each', () => {
  const p = demoProject(newId);
  const [voice, music] = ['voice', 'music'].map((k) => lane(p, k).clips[0]!);
  change(p, [voice!.id], { clips: { fadeOut: frame(4) } });
  change(p, [music!.id], { clips: { fadeOut: frame(8) } });
  change(p, [voice!.id, music!.id], { clips: { fadeIn: frame(2) } });
  expect([voice!.fadeOut, music!.fadeOut]).toEqual([frame(4), frame(8)]);
});

test('linked clips get one speed once, and go on fitting each other', () => {
  const p = demoProject(newId);
  const [screen] = lane(p, 'screen').clips;
  const sound = lane(p, 'computer').clips.find((c) => c.link === screen!.link)!;
  const { duration } = screen!;
  change(p, [screen!.id, sound.id], { clips: { speed: 2 } });
  const [a, b] = [screen!, sound].map(({ id }) => findClip(p, id)!.clip);
  expect([a!.speed, b!.speed]).toEqual([2, 2]);
  expect(a!.duration).toBe(b!.duration);
  expect(Math.abs(a!.duration - duration / 2)).toBeLessThanOrEqual(FRAME);
});

test('callouts take the settings of their kind, and nothing that is not theirs', () => {
  const p = demoProject(newId);
  const line = {
    ...{ id: newId(), start: 0, end: frame(90), kind: 'line' as const, width: 4, ...USUAL_MOTION },
    ...{ from: { x: 1, y: 2 }, to: { x: 30, y: 40 }, color: '#c2412d', ...PLAIN_LINES },
    anchor: { to: 'frame' as const },
    ...UNPOSED,
  };
  addSpan(p, 'callouts', line);
  const cover = p.callouts.find((c) => c.kind === 'cover')!;
  const before = structuredClone(cover);
  change(p, [line.id, cover.id], { callouts: { width: 9, id: 'taken', kind: 'box', start: 5 } });
  expect(p.callouts.find((c) => c.id === line.id)).toEqual({ ...line, width: 9 });
  expect(cover).toEqual(before);
});

test('things of several kinds are changed in one go', () => {
  const p = demoProject(newId);
  const framings = p.framings.slice(0, 2);
  const [voice] = lane(p, 'voice').clips;
  change(p, [...framings.map((f) => f.id), voice!.id], {
    clips: { muted: true },
    framings: { pinned: true, rampIn: frame(5) },
  });
  expect(framings.map((f) => [f.pinned, f.rampIn])).toEqual([
    [true, frame(5)],
    [true, frame(5)],
  ]);
  expect(voice!.muted).toBe(true);
});

test('a locked lane and what is gone are said', () => {
  const p = demoProject(newId);
  lane(p, 'music').locked = true;
  const music = lane(p, 'music').clips[0]!.id;
  expect(() => change(p, [music], { clips: { gain: 1 } })).toThrow(EditError);
  expect(() => change(p, ['gone'], {})).toThrow('no longer there');
});
