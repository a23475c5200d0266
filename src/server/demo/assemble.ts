import { PLAIN_TEXT } from '@/core/callout/kinds/text';
import { UNPOSED } from '@/core/callout/keyframes';
import { LAYOUTS } from '@/core/layout/built-in';
import { addStep } from '@/core/edit/outline';
import { changeKey } from '@/core/edit/settings';
import { USUAL_MOTION } from '@/core/callout/motion';
import { addSpan, keepClear, setLayout } from '@/core/edit/spans';
import { placeFootage } from '@/core/edit/place';
import { planProject } from '@/core/framing/plan';
import { newLook, pointerSpan } from '@/core/pointer/model';
import { createProject } from '@/core/project/create';
import type { Layout, Project } from '@/core/project/model';
import { projectDuration } from '@/core/project/query';
import type { Sources } from '@/core/project/sources';
import { keepClear as planClear } from '@/core/staging/keep-clear';
import { rateFromNumber, secondsToTicks, snapToFrame, ticksToSeconds } from '@/core/time/ticks';

export const DEMO_NAME = 'Glaze firing';

/** A layout of the house, saved as a preset; the demo's hello goes over to it. */
export const DEMO_LAYOUT: Layout = {
  ...LAYOUTS.side,
  name: 'Beside the screen',
  background: { from: '#1e2a32', to: '#0e6b63' },
  screen: {
    ...{ box: { x: 0.03, y: 0.16, width: 0.62, height: 0.62 }, rounding: 0.025, shadow: 0.5 },
  },
  presenter: {
    ...{ box: { x: 0.69, y: 0.16, width: 0.28, height: 0.62 }, shape: 'rounded', rounding: 0.06 },
    ...{ feather: 0, center: null, shadow: 0.5, ring: { width: 3, color: '#e3eef2' } },
  },
};
/** When the hello goes over to it, in seconds. */
const SHOWS_SCREEN = 5;

/** The demo's recordings in the order they are placed, with the roles they play. */
export const DEMO_FOOTAGE = [
  { file: 'presenter-take-1.mp4', role: 'presenter' },
  { file: 'presenter-take-2.mp4', role: 'presenter' },
  { file: 'presenter-take-3.mp4', role: 'presenter' },
  {
    file: 'presenter-take-4.mp4',
    role: 'presenter',
    // Recorded without the wall: what `vistum matte` wrote of it.
    matte: 'presenter-take-4.matte.mp4',
  },
  { file: 'presenter-take-5.mp4', role: 'presenter' },
  {
    file: 'kilnbook-screen.mp4',
    role: 'screen',
    pointer: 'kilnbook-screen.pointer.json',
    // What `vistum analyse` wrote of it, so that seeding need not look through it.
    sight: 'kilnbook-screen.sight.json',
  },
  { file: 'music-bed.m4a', role: 'music' },
  { file: 'kiln-safety-slides.mp4', role: 'screen' },
] as const;

/** What the generator noted of the performance; seconds of the screen recording. */
export interface Scenario {
  readonly lead: number;
  readonly starts: readonly number[];
  readonly end: number;
  readonly steps: readonly { title: string; narration: string; action: string }[];
}

/** What the presenter's wall looks like, as found in the recordings. */
export interface WallSettings {
  readonly color: string;
  readonly tolerance: number;
  readonly softness: number;
}

/** Assembles the demo project; `idOf` tells the footage id of a file. */
export function assembleDemo(
  idOf: (file: string) => string,
  sources: Sources,
  scenario: Scenario,
  wall: WallSettings | null,
  newId: () => string,
): Project {
  const rate = rateFromNumber(30);
  const project = structuredClone(createProject(1920, 1080, rate));
  const at = (seconds: number) => snapToFrame(secondsToTicks(seconds), rate);
  const facts = (file: string) => sources.footage[idOf(file)]!;
  for (const item of DEMO_FOOTAGE) {
    const { file, role } = item;
    if (role === 'presenter') {
      placeFootage(project, facts(file), null, newId);
      changeKey(project, idOf(file), 'matte' in item ? { method: 'person' } : (wall ?? {}));
    }
  }
  const screenId = idOf('kilnbook-screen.mp4');
  placeFootage(project, facts('kilnbook-screen.mp4'), at(scenario.lead), newId);
  placeFootage(project, facts('music-bed.m4a'), 0, newId);
  const end = projectDuration({
    ...project,
    lanes: project.lanes.filter((l) => l.kind === 'presenter'),
  });
  for (const lane of project.lanes)
    for (const clip of lane.clips) clip.duration = Math.min(clip.duration, end - clip.start);
  const time = (screenSeconds: number) => at(screenSeconds + scenario.lead);
  scenario.steps.forEach((step, i) =>
    addStep(project, {
      id: newId(),
      start: i ? time(scenario.starts[i]! - 0.4) : 0,
      notes: '',
      ...step,
    }),
  );
  const hello = { start: 0, end: at(SHOWS_SCREEN) };
  setLayout(project, hello, LAYOUTS.presenter, newId);
  const firing = { start: hello.end, end: time(scenario.starts[1]! - 0.4) };
  setLayout(project, firing, structuredClone(DEMO_LAYOUT), newId);
  setLayout(
    project,
    { start: time(scenario.starts[5]! - 0.2), end: time(scenario.starts[6]! - 0.2) },
    LAYOUTS.screen,
    newId,
  );
  setLayout(project, { start: end - at(3.4), end }, LAYOUTS.presenter, newId);
  // The presenter glides beside the screen, into their corner, and out of it to say goodbye.
  for (const span of [project.layouts[1]!, project.layouts.at(-1)!]) span.glide = at(0.6);
  const seen = { start: time(scenario.starts[1]!), end };
  addSpan(project, 'pointer', pointerSpan(newId(), seen, [newLook('halo')]));
  const track = sources.pointers[screenId]!;
  const releaseAfter = (seconds: number) =>
    (track.events.find((e) => e.type === 'up' && e.t >= seconds * 1000)?.t ?? seconds * 1000) /
    1000;
  // The whole columns of addresses and numbers, for as long as the table is seen.
  const shown = at(releaseAfter(scenario.starts[5]!) + scenario.lead) - at(0.1);
  const hidden = at(releaseAfter(scenario.starts[6]!) + scenario.lead) + at(0.1);
  for (const rect of [
    { x: 940, y: 362, width: 660, height: 690 },
    { x: 1660, y: 362, width: 320, height: 690 },
  ])
    addSpan(project, 'callouts', {
      id: newId(),
      start: shown,
      end: hidden,
      anchor: { to: 'footage', footageId: screenId },
      ...UNPOSED,
      kind: 'cover',
      way: 'blur',
      color: '#1e2a32',
      rect,
      strength: 26,
    });
  const dragEnd = ticksToSeconds(time(scenario.starts[4]! - 4.2));
  addSpan(project, 'callouts', {
    id: newId(),
    start: at(dragEnd),
    end: at(dragEnd + 3.6),
    anchor: { to: 'footage', footageId: screenId },
    ...UNPOSED,
    kind: 'text',
    text: 'Cone 6 is 1222 °C',
    tip: { x: 2050, y: 444 },
    offset: { dx: -300, dy: 190 },
    size: 38,
    fill: '#8e3f66',
    ink: '#ffffff',
    arrow: true,
    ...{ ...PLAIN_TEXT, ...USUAL_MOTION },
  });
  project.framings = planProject(project, sources, newId).framings;
  // In their usual corner the presenter would stand before what the firing's page says of itself.
  const { spans } = planClear(project, sources, null);
  keepClear(project, { start: 0, end }, spans, newId);
  return project;
}
