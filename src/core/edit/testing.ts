import { PLAIN_LINES } from '../callout/kinds/two-points';
import { UNPOSED } from '../callout/keyframes';
import fc from 'fast-check';
import { USUAL_MOTION } from '../callout/motion';
import { KEEPS_CLEAR } from '../layout/clearing';
import { LAYOUT_KINDS, LAYOUTS } from '../layout/built-in';
import { newLook, pointerSpan } from '../pointer/model';
import { TRANSITION_KINDS, type PathCorrection, type Project } from '../project/model';
import { SPAN_LISTS } from '../project/span-lists';
import { TARGET_IDS } from '../project/targets';
import { copyClips, copyRange } from './clipboard';
import { EditError } from './error';
import { demoProject, FRAME, frame, SOURCES } from './fixture';
import { doEdit, EMPTY_HISTORY, type Versioned } from './history';
import { addMarker } from './markers';
import { PACE_WAYS } from './pace';
import { placeFootage } from './place';
import { EDITS, prepareEdit, type EditArgs, type EditId } from './registry';
import { copySpan } from './span-copy';
import { addSpan, setLayout } from './spans';
import type { KeptTake } from './take';
import { DEFAULT_TRANSITION } from './transitions';

const clipIds = (p: Project) => p.lanes.flatMap((lane) => lane.clips.map((c) => c.id));

/** Where a random edit acts: numbers, from which its arguments are made. */
const numbers = fc.record({
  which: fc.nat(60),
  at: fc.nat(1900),
  length: fc.integer({ min: 1, max: 400 }),
});
type Numbers = typeof numbers extends fc.Arbitrary<infer S> ? S : never;

interface Place extends Numbers {
  readonly id: string;
  readonly laneId: string;
  readonly newId: () => string;
}

/** A layout in which the presenter stands elsewhere to keep something clear. */
const CLEARING = { ...LAYOUTS.side, name: KEEPS_CLEAR };
const speeds = [0.1, 0.5, 0.75, 1, 1.25, 1.337, 2, 3, 16];

const FOLLOWED = {
  ...{ ms: 0, from: 0, to: 2400, step: 40, of: { width: 2560, height: 1440, length: 20_000 } },
  runs: [
    {
      ...{ from: 0, to: 1500 },
      places: [
        [0, 0, 0, 1, 1],
        [700, 0, -80, 1, 0],
      ] as [number, number, number, number, number][],
    },
  ],
};

/**
 * The demo with a still behind its screen, which has no length of its own, and a few of all else.
 */
export function withStill(newId: () => string): Project {
  const project = demoProject(newId);
  placeFootage(project, SOURCES.footage.still!, frame(1900), newId);
  addSpan(
    project,
    'pointer',
    pointerSpan(newId(), { start: 0, end: frame(300) }, [newLook('halo')]),
  );
  setLayout(project, { start: frame(500), end: frame(700) }, LAYOUTS.side, newId);
  addSpan(project, 'callouts', {
    ...{ id: newId(), kind: 'cover', way: 'blur', color: '#1e2a32', strength: 24, ...UNPOSED },
    ...{ start: 0, end: frame(200), rect: { x: 40, y: 60, width: 200, height: 40 } },
    anchor: { to: 'track', footageId: 'screen', path: FOLLOWED },
  });
  addMarker(project, { id: newId(), time: frame(40), name: 'First', color: '#8e3f66' });
  return project;
}

const pick = <T>(list: readonly T[], which: number): T | undefined => list[which % list.length];
/** Frames to the one side or the other. */
const way = ({ which, length }: Numbers): number => frame(which % 2 ? length : -length);
const range = ({ at, length }: Numbers) => ({ start: frame(at), end: frame(at + length) });
const WORDS = { title: 'Glaze', narration: 'Stir the glaze well.', action: '', notes: '' };
/** One that goes along with what it marks, if any does. */
const followed = (p: Project, which: number) =>
  pick(
    p.callouts.filter(({ anchor }) => anchor.to === 'track'),
    which,
  )?.id ?? callout(p, which);
const stretchOf = (at: number, length: number) => ({ from: at, to: at + length });

const callout = (p: Project, which: number) => pick(p.callouts, which)?.id ?? 'none';

function anyTake({ which, length, newId }: Place): KeptTake {
  const track = (name: 'screen' | 'voice', footageId: string, offset: number) => ({
    ...{ name, footageId, offset, duration: frame(length), width: 2560, height: 1440 },
  });
  return {
    stepId: null,
    setup: {
      area: which % 2 ? { x: 0, y: 0, width: 1280, height: 720 } : null,
      ...{ gain: 3, hold: null },
      camera: { mirror: false, brightness: 0, contrast: 1, area: null },
    },
    tracks: [track('screen', 'screen', 0), track('voice', 'music', frame(which % 7))],
    events: [
      { t: 5, type: 'layout', kind: 'side' },
      { t: 9, type: 'closer', x: 400, y: 300, magnification: 2 },
      { t: 10, type: 'mark', name: newId() },
    ],
  };
}

/** Arguments for every edit that there is, on a place that the numbers choose. */
const ARGS: { readonly [I in EditId]: (p: Project, place: Place) => EditArgs<I> } = {
  'split-clip': (_p, { id, at }) => ({ clipId: id, time: frame(at) }),
  'split-all': (_p, { at }) => ({ time: frame(at) }),
  'trim-clip': (_p, { id, which, at }) => ({
    ...{ clipId: id, end: which % 2 ? 'start' : 'end', time: frame(at) },
  }),
  'trim-clip-by': (_p, place) => ({
    ...{ clipId: place.id, end: place.at % 2 ? 'start' : 'end', by: way(place) },
  }),
  'move-clip': (_p, { id, at, laneId }) => ({
    ...{ clipId: id, start: frame(at), laneId: at % 2 ? laneId : null },
  }),
  'shift-clip': (_p, { id, which }) => ({ clipId: id, by: frame(which - 30) }),
  'line-up-clips': (p, { id, which }) => ({
    parts: [
      { clipId: id, by: frame(which - 30) + which * 77, clock: which % 4 ? null : which - 30 },
      ...(which % 3
        ? []
        : [{ clipId: pick(clipIds(p), which * 5 + 1) ?? id, by: -which * 1001, clock: 50 }]),
    ],
  }),
  'lift-clips': (_p, { id }) => ({ clipIds: [id] }),
  'lift-footage': (_p, { which }) => ({ footageId: pick(Object.keys(SOURCES.footage), which)! }),
  'roll-cut': (_p, place) => ({ clipId: place.id, by: way(place) }),
  'slip-clip': (_p, place) => ({ clipId: place.id, by: way(place) }),
  'slide-clip': (_p, place) => ({ clipId: place.id, by: way(place) }),
  'link-clips': (p, { id, which }) => ({ clipIds: [id, pick(clipIds(p), which * 7 + 3) ?? id] }),
  'unlink-clip': (_p, { id }) => ({ clipId: id }),
  'group-clips': (p, { id, which }) => ({
    clipIds: [...new Set([id, pick(clipIds(p), which * 7 + 3) ?? id])],
    name: which % 2 ? 'Intro' : null,
  }),
  ungroup: (p, { which }) => ({ groupId: pick(p.groups, which)?.id ?? 'none' }),
  'rename-group': (p, { which }) => ({
    ...{ groupId: pick(p.groups, which)?.id ?? 'none', name: `Part ${which}` },
  }),
  'mute-clips': (_p, { id, which }) => ({ clipIds: [id], muted: which % 2 > 0 }),
  'set-clip-level': (_p, { id, which }) => ({ clipId: id, gain: (which % 50) - 30 }),
  'set-speed': (_p, { id, which }) => ({ clipId: id, speed: pick(speeds, which)! }),
  'freeze-clip': (_p, { id, at, length }) => ({
    ...{ clipId: id, time: frame(at), length: frame(length) },
  }),
  'freeze-all': (_p, { at, length }) => ({ time: frame(at), length: frame(length) }),
  'pace-to-voice': (_p, { id, which }) => ({ clipId: id, way: pick(PACE_WAYS, which)! }),
  'set-transition': (_p, { id, which, length }) => ({
    clipId: id,
    end: which % 2 ? 'start' : 'end',
    transition:
      which % 5 === 0
        ? null
        : {
            ...DEFAULT_TRANSITION,
            ...{ kind: pick(TRANSITION_KINDS, which)!, duration: frame(length) },
          },
  }),
  'ripple-delete': (_p, place) => range(place),
  'ripple-delete-clips': (_p, { id }) => ({ clipIds: [id] }),
  'ripple-delete-range': (_p, place) => ({ ...range(place), laneIds: [place.laneId] }),
  'lift-range': (_p, place) => ({
    ...{ ...range(place), laneIds: place.at % 2 ? [place.laneId] : null },
  }),
  'ripple-trim': (_p, { id, which, at }) => ({
    ...{ clipId: id, end: which % 2 ? 'start' : 'end', time: frame(at) },
  }),
  'close-gap': (_p, { at, laneId }) => ({ laneId, time: frame(at) }),
  'close-all-gaps': () => ({}),
  'open-join': (p, { id, length, which }) => ({
    time: p.lanes.flatMap((l) => l.clips).find((c) => c.id === id)?.start ?? 0,
    length: which % 4 ? frame(length) : null,
  }),
  'remove-things': (p, { id, which }) => ({
    ...{ clipIds: which % 2 ? [id] : [], spanIds: [callout(p, which)], ripple: which % 3 > 0 },
  }),
  'set-level-point': (_p, { id, at, which }) => ({
    ...{ clipId: id, time: frame(at), level: which - 40, reach: FRAME },
  }),
  'move-level-point': (_p, { id, at, which }) => ({
    ...{ clipId: id, index: which % 3, time: frame(at), level: -which },
  }),
  'remove-level-point': (_p, { id, which }) => ({ clipId: id, index: which % 3 }),
  'clear-level-points': (_p, { id }) => ({ clipId: id }),
  'set-fades': (_p, { id, length }) => ({
    ...{ clipId: id, fadeIn: frame(length), fadeOut: frame(length) / 2 },
  }),
  'silence-range': (_p, place) => ({ ...range(place), laneIds: null }),
  'detach-audio': (_p, { id }) => ({ clipId: id }),
  'add-lane': (_p, { which }) => ({ kind: pick(['screen', 'presenter', 'voice'], which)! }),
  'remove-lane': (_p, { laneId }) => ({ laneId }),
  'move-lane': (_p, { laneId, which }) => ({ laneId, by: which % 2 ? 1 : -1 }),
  'change-lane': (_p, { laneId, which }) => ({
    laneId,
    change: { gain: (which % 50) - 30, solo: which % 2 > 0, name: `Lane ${which}` },
  }),
  'add-callout': (_p, { at, length, which, newId }) => ({
    callout: {
      ...{
        id: newId(),
        start: frame(at),
        end: frame(at + length),
        kind: 'line',
        width: 4,
        ...{ ...UNPOSED, ...USUAL_MOTION, ...PLAIN_LINES },
      },
      ...{ from: { x: 1, y: 2 }, to: { x: 30, y: 40 }, color: '#c2412d' },
      anchor: which % 2 ? { to: 'frame' } : { to: 'pointer', footageId: 'screen' },
    },
  }),
  'add-callouts': (_p, { at, length, which, newId }) => ({
    callouts: [0, 1].map((i) => ({
      ...{ id: newId(), start: frame(at + i), end: frame(at + i + length), kind: 'cover' },
      ...{ rect: { x: which, y: 2, width: 30, height: 12 }, way: 'blur', strength: 24 },
      ...{ color: '#1e2a32', anchor: { to: 'footage', footageId: 'screen' }, ...UNPOSED },
    })),
  }),
  'change-callout': (p, { which }) => ({
    ...{ id: callout(p, which), change: { anchor: { to: 'frame' } } },
  }),
  'keep-pose': (p, { which, at }) => ({ id: callout(p, which), time: frame(at) }),
  'change-pose': (p, { which, at }) => ({
    ...{ id: callout(p, which), time: frame(at), change: { dx: which, turn: at % 90 } },
  }),
  'drop-pose': (p, { which, length }) => {
    const one = pick(p.callouts, which);
    return { id: one?.id ?? 'none', at: pick(one?.keyframes ?? [], length)?.at ?? 0 };
  },
  'stagger-callouts': (p, { which, at, length }) => ({
    ...{ ids: [callout(p, which), callout(p, at)], by: frame(length) },
  }),
  'change-theme': (_p, { which }) => ({
    change: pick([{ line: '#123456' }, { width: which + 1 }, { weight: 'bold' as const }], which)!,
  }),
  'follow-content': (p, { which, at, length }) => ({
    ...{ id: callout(p, which), time: frame(at), whole: which % 2 > 0 },
    path: {
      ...{ ms: at, from: 0, to: at + length, step: 33.333 },
      of: { width: 2560, height: 1440, length: at + length },
      runs: [{ from: 0, to: at + length, places: [[0, which, length, 1.25, 1]] }],
    },
  }),
  'move-followed': (p, { which, at, length }) => ({
    ...{ id: followed(p, which), dx: (length % 200) - 100, dy: which },
    ...stretchOf(at, length),
  }),
  'show-followed': (p, { which, at, length }) => ({
    id: followed(p, which),
    ...stretchOf(at, length),
  }),
  'hide-followed': (p, { which, at, length }) => ({
    id: followed(p, which),
    ...stretchOf(at, length),
  }),
  'rest-callout': (p, { which, at }) => ({ id: callout(p, which), time: frame(at) }),
  'change-callouts': (p, { which, at }) => ({
    changes: [callout(p, which), callout(p, at)].map((id) => ({
      ...{ id, change: { anchor: { to: 'frame' } } },
    })),
  }),
  'change-several': (p, { which, at, length }) => ({
    ids: [
      pick(clipIds(p), which),
      pick(clipIds(p), at),
      callout(p, which),
      p.framings[0]?.id,
    ].flatMap((id) => id ?? []),
    change: {
      clips: { gain: (which % 20) - 10, fadeIn: frame(length), speed: pick(speeds, length)! },
      callouts: { color: '#c2412d', fadeIn: 5 },
      framings: { rampIn: frame(length), pinned: which % 2 > 0 },
    },
  }),
  'add-framing': (_p, { at, length, newId }) => ({
    framing: {
      ...{ id: newId(), start: frame(at), end: frame(at + length + 4), rampIn: FRAME },
      ...{ rampOut: FRAME, footageId: 'screen', endRect: null, pinned: true, reason: '' },
      rect: { x: 0, y: 0, width: 960, height: 540 },
    },
  }),
  'change-framing': (p, { which, length }) => ({
    id: pick(p.framings, which)?.id ?? 'none',
    change: which % 2 ? { turn: (length % 90) - 45 } : { rampIn: frame(length) },
  }),
  'paste-span': (p, { which, at }) => {
    const spans = SPAN_LISTS.flatMap((list) => p[list].map(({ id }) => id));
    return {
      copied: copySpan(p, SOURCES, pick(spans, which) ?? 'none') ?? {
        ...{ list: 'pointer', span: pointerSpan('x', { start: 0, end: 1 }, []) },
      },
      ...{ time: frame(at), footageId: 'screen' },
    };
  },
  'show-whole': (_p, { at }) => ({ time: frame(at) }),
  'plan-framings': (_p, { which, at, length }) => ({
    taste: which % 2 ? {} : { limit: 2, lively: 1 },
    range: which % 3 ? null : { start: frame(at), end: frame(at + length) },
  }),
  'set-framings': (p, { which }) => ({
    framings: p.framings.filter((f, i) => i !== which % 3).map((f) => ({ ...f, reason: 'press' })),
  }),
  'add-pointer-looks': (_p, { at, length, newId }) => ({
    span: pointerSpan(newId(), { start: frame(at), end: frame(at + length) }, [
      newLook('halo'),
      newLook('dim'),
    ]),
  }),
  'change-pointer-looks': (p, { which }) => ({
    ...{ id: pick(p.pointer, which)?.id ?? 'none', change: { looks: [newLook('dim')] } },
  }),
  'set-layout': (_p, place) => ({
    ...{ ...range(place), layout: LAYOUTS[pick(LAYOUT_KINDS, place.which)!] },
    ...(place.which % 3 ? {} : { glide: frame(place.length) }),
  }),
  'set-layouts': (_p, place) => ({
    parts: [
      { ...range(place), layout: LAYOUTS[pick(LAYOUT_KINDS, place.which)!], glide: frame(5) },
    ],
  }),
  'keep-clear': (_p, place) => ({
    ...range(place),
    spans: place.which % 3 ? [{ ...range(place), layout: CLEARING, glide: frame(9) }] : [],
  }),
  'change-layout': (p, { which }) => ({
    ...{ id: pick(p.layouts, which)?.id ?? 'none', change: { layout: LAYOUTS.presenter } },
  }),
  'time-span': (p, place) => ({
    ...{ id: pick([...p.callouts, ...p.framings, ...p.layouts], place.which)?.id ?? 'none' },
    ...range(place),
  }),
  'move-things': (p, place) => ({
    ids: [place.id, pick(clipIds(p), place.which * 7) ?? place.id, callout(p, place.which)],
    ...{ by: way(place), lanes: null },
  }),
  'remove-span': (p, { which }) => ({ id: callout(p, which) }),
  'add-marker': (_p, { at, newId }) => ({
    marker: { id: newId(), time: frame(at), name: 'Here', color: '#8e3f66' },
  }),
  'change-marker': (p, { which }) => ({
    ...{ id: pick(p.markers, which)?.id ?? 'none', change: { name: `M${which}` } },
  }),
  'move-marker': (p, { which, at }) => ({
    ...{ id: pick(p.markers, which)?.id ?? 'none', time: frame(at) },
  }),
  'remove-marker': (p, { which }) => ({ id: pick(p.markers, which)?.id ?? 'none' }),
  'add-step': (_p, { at }) => ({ start: frame(at), words: WORDS }),
  'insert-steps': (p, { which }) => ({
    ...{ at: which % 2 ? null : which % (p.steps.length + 1), words: [WORDS, WORDS] },
    replace: which % 3 === 0,
  }),
  'change-step': (p, { which }) => ({
    ...{ id: pick(p.steps, which)?.id ?? 'none', change: { title: `Step ${which}` } },
  }),
  'remove-step': (p, { which }) => ({ id: pick(p.steps, which)?.id ?? 'none' }),
  'move-step': (p, { which, at }) => ({ id: pick(p.steps, which)?.id ?? 'none', to: at % 8 }),
  'split-step': (p, { which }) => ({ id: pick(p.steps, which)?.id ?? 'none', at: which % 9 }),
  'join-step': (p, { which }) => ({ id: pick(p.steps, which)?.id ?? 'none' }),
  'set-target': (_p, { which }) => ({ id: pick(TARGET_IDS, which)! }),
  'change-target': (_p, { which }) => ({ change: { loudness: -10 - (which % 20) } }),
  'set-reading-speed': (_p, { which }) => ({ wordsPerMinute: 100 + which }),
  'change-canvas': (_p, { which }) => ({ change: { background: `#1020${10 + (which % 80)}` } }),
  'change-presenter': (_p, { which }) => ({ change: { size: 0.1 + (which % 8) / 10 } }),
  'change-key': (_p, { which }) => ({ footageId: 'camera', change: { tolerance: which } }),
  'copy-key': () => ({ from: 'camera', to: ['screen'] }),
  'correct-pointer': (_p, { which, at, length }) => ({
    footageId: which % 2 ? 'screen' : 'camera',
    correction: (
      [
        { kind: 'shift', at, dx: 3, dy: -2, reach: length },
        { kind: 'hidden', from: at, to: at + (which % 7) },
        { kind: 'press', at, on: which % 2 === 0 },
        {
          kind: 'path',
          points: [
            [at, 1, 2],
            [at + length, 3, 4],
          ],
        },
      ] as const
    ).map((c) => structuredClone(c) as PathCorrection)[which % 4]!,
  }),
  'drop-corrections': (_p, { at, length }) => ({
    ...{ footageId: 'screen', from: at, to: at + length },
  }),
  'change-look': (_p, { which }) => ({
    ...{ footageId: 'screen', change: { brightness: which / 100 } },
  }),
  'follow-face': (_p, { at, which }) => ({
    footageId: 'camera',
    path: [[at * 100, which / 100, 0.2 - which / 200]],
    shown: { center: { x: 0.4, y: which / 200 }, crop: 0.7 },
  }),
  'place-footage': (_p, { at, which, laneId }) => ({
    parts: [
      { footageId: 'still', part: null },
      { footageId: 'screen', part: { from: frame(which), to: frame(which + 40) } },
    ],
    at: which % 5 ? frame(at) : null,
    ...{ mode: pick(['free', 'insert', 'overwrite'], which)!, laneId: at % 3 ? null : laneId },
  }),
  'place-recordings': (_p, { at, which }) => ({
    parts: [
      { footageId: 'screen', at },
      { footageId: 'still', at: at + which * 1000 },
      { footageId: 'screen', at: at + which },
    ],
  }),
  paste: (p, place) => ({
    snippet: place.which % 2 ? copyClips(p, [place.id]) : copyRange(p, range(place), null),
    at: frame(place.at + place.which),
    mode: place.which % 3 ? 'overwrite' : 'insert',
    laneId: place.which % 2 ? (place.at % 3 ? place.laneId : 'front') : null,
  }),
  'place-retake': (_p, place) => ({
    ...{ ...range(place), footageId: 'music', source: -frame(place.which % 5) },
    available: frame(place.length),
  }),
  'place-take': (_p, place) => ({ take: anyTake(place) }),
};

/** Every edit there is. */
export const IDS = Object.keys(EDITS) as EditId[];
/** Any edit, anywhere. */
export const step = fc.record({ name: fc.constantFrom(...IDS), place: numbers });
export type Step = typeof step extends fc.Arbitrary<infer S> ? S : never;

/** The call of a random edit on a project; what can't be copied there is refused like an edit. */
export function callOf({ name, place }: Step, project: Project, newId: () => string) {
  const ids = clipIds(project);
  const id = ids[place.which % Math.max(1, ids.length)] ?? 'none';
  const laneId = project.lanes[place.at % project.lanes.length]!.id;
  return ARGS[name](project, { ...place, id, laneId, newId });
}

/** Applies edits; those that are refused with a sentence leave everything as it was. */
export function run(
  steps: readonly Step[],
  start: Project,
  newId: () => string,
  each: (before: Versioned, after: Versioned, s: Step) => void = () => {},
): Versioned {
  let state: Versioned = { project: start, history: EMPTY_HISTORY };
  for (const s of steps) {
    const before = JSON.stringify(state.project);
    try {
      const args = callOf(s, state.project, newId);
      const { label, edit } = prepareEdit(s.name, args, state.project, SOURCES, newId);
      const next = doEdit(state, label, edit);
      if (next !== state) each(state, next, s);
      state = next;
    } catch (error) {
      if (!(error instanceof EditError)) throw error;
      expect(JSON.stringify(state.project)).toBe(before);
    }
  }
  return state;
}

/** Some edits, one after the other. */
export const steps = fc.array(step, { maxLength: 25 });
/** How often a law is tried; `RUNS` says another number. */
export const RUNS = { numRuns: Number(process.env.RUNS ?? 120) };
