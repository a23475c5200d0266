import { counter, emptyProject, facts } from '@/core/edit/fixture';
import { placeFootage } from '@/core/edit/place';
import { attentionOf, type Attention } from '@/core/framing/attention';
import { keepInside } from '@/core/framing/path';
import { planProject } from '@/core/framing/plan';
import { viewAt } from '@/core/framing/view';
import type { Framing } from '@/core/project/model';
import { isWithin, type InFootage } from '@/core/scale/rect';
import { sharpLimit, wholeView } from '@/core/scale/sharpness';
import { pointerAt } from '@/core/telemetry/sample';
import { secondsToTicks, ticksToSeconds } from '@/core/time/ticks';
import { edgesOf } from '@/core/framing/edge-index';
import type { Sources } from '@/core/project/sources';
import type { Page } from '@/core/vision/page';
import type { ScreenSight } from '@/core/vision/screen-sight';
import { table } from './measure';
import { madePage } from './pages';
import { sessions, type Session } from './sessions';

const FRAME = { width: 1920, height: 1080 };
const FPS = 30;

type ViewOver = (seconds: number) => InFootage;

/** @param reads whether what stands on the screen is known to whoever asks */
function setUp({ track, seconds, shows }: Session, reads = true) {
  const screen = {
    ...facts('screen', 'screen', seconds),
    ...{ width: track.width, height: track.height },
  };
  const project = emptyProject();
  placeFootage(project, screen, 0, counter());
  const page = madePage(shows, screen, seconds);
  const { width, height } = track;
  const length = seconds * 1000;
  const sight: ScreenSight = {
    ...{ width, height, length, pointer: null, activities: [], pages: [page] },
  };
  const sources: Sources = {
    ...{ footage: { screen }, pointers: { screen: track } },
    ...(reads ? { sights: { screen: sight } } : {}),
  };
  const whole = wholeView(screen, FRAME);
  return { project, screen, sources, whole, page, limit: Math.max(1, sharpLimit(screen, FRAME)) };
}

const sized = (whole: InFootage, x: number, y: number, limit: number): InFootage => {
  const width = whole.width / limit;
  const height = whole.height / limit;
  return keepInside({ x: x - width / 2, y: y - height / 2, width, height }, whole);
};

/** A view that is centred on the pointer all the time. */
function centred(session: Session): ViewOver {
  const { whole, limit } = setUp(session);
  return (seconds) => {
    const { x, y } = pointerAt(session.track, seconds * 1000);
    return sized(whole, x, y, limit);
  };
}

/**
 * A framing for each press, half a second before it to a second after it, ramps of half a second.
 */
function zoomForEach(session: Session): ViewOver {
  const { screen, whole, limit } = setUp(session);
  const framings: Framing[] = [];
  const ramp = secondsToTicks(0.5);
  for (const { t, type } of session.track.events) {
    if (type !== 'down') continue;
    const { x, y } = pointerAt(session.track, t);
    const last = framings[framings.length - 1];
    const start = Math.max(last?.end ?? 0, secondsToTicks(Math.max(0, t / 1000 - 1)));
    const end = Math.max(start + 2 * ramp, secondsToTicks(t / 1000 + 1.5));
    framings.push({
      ...{ id: String(t), start, end, rampIn: ramp, rampOut: ramp, footageId: 'screen' },
      ...{ rect: sized(whole, x, y, limit), endRect: null, pinned: false, reason: '' },
    });
  }
  return (seconds) => viewAt(framings, 'screen', screen, FRAME, secondsToTicks(seconds)).rect;
}

function planned(session: Session, reads = true): { view: ViewOver; ms: number } {
  const { project, screen, sources } = setUp(session, reads);
  const began = performance.now();
  const { framings } = planProject(project, sources, counter());
  const ms = performance.now() - began;
  return {
    ms,
    view: (seconds) => viewAt(framings, 'screen', screen, FRAME, secondsToTicks(seconds)).rect,
  };
}

interface Judged {
  readonly middle: number;
  readonly inView: number;
  readonly attention: number;
  readonly moves: number;
  readonly shortest: number;
  readonly travel: number;
  readonly jerk: number;
  readonly beyond: number;
  readonly gained: number;
  /** Of what is cut by the edges of views that are come to, a view. */
  readonly cut: number;
  /** Height of the small letters where something is done, in frame pixels. */
  readonly letters: number;
}

/** The height of most letters of a page, in its pixels. */
function smallLetters({ lines }: Page): number {
  const heights = lines.map(({ letters }) => letters).sort((a, b) => a - b);
  return heights[heights.length >> 1] ?? 0;
}

const share = (part: number, all: number): number => (all ? part / all : 1);

/** Judges what is seen over a session, frame by frame. */
function judge(session: Session, view: ViewOver): Judged {
  const { project, sources, whole, page, limit } = setUp(session);
  const frames = Math.floor(session.seconds * FPS);
  const views = Array.from({ length: frames }, (_, i) => view(i / FPS));
  const seen: readonly Attention[] = attentionOf(project, sources).filter(({ gain }) => gain);
  const presses = seen.filter(({ must }) => must);
  const viewOf = ({ start }: Attention) => view(ticksToSeconds(start));
  const middleOf = (v: InFootage): InFootage => ({
    ...{ x: v.x + v.width * 0.1, y: v.y + v.height * 0.1 },
    ...{ width: v.width * 0.8, height: v.height * 0.8 },
  });
  const gains = seen.reduce((sum, { gain }) => sum + gain, 0);
  let moves = 0;
  let travel = 0;
  let jerk = 0;
  let beyond = 0;
  let shortest = Infinity;
  let rest = 0;
  let cut = 0;
  let rests = 0;
  const state = (v: InFootage) => [
    (v.x + v.width / 2) / whole.width,
    (v.y + v.height / 2) / whole.width,
    Math.log2(whole.width / v.width),
  ];
  const away = (a: readonly number[], b: readonly number[]) =>
    Math.hypot(...a.map((x, k) => x - b[k]!));
  const states = views.map(state);
  for (let i = 1; i < frames; i++) {
    const step = away(states[i]!, states[i - 1]!);
    travel += step;
    if (whole.width / views[i]!.width > limit * 1.01) beyond++;
    if (step < 1e-5) {
      rest++;
      // Once for each view that is come to; the whole cuts nothing.
      if (rest === 1 && whole.width / views[i]!.width > 1.001) {
        cut += edgesOf(page).cutsOf(views[i]!);
        rests++;
      }
    } else {
      if (rest > 0) moves++;
      // The rest before the first move began before the recording did.
      if (rest > 0 && i > rest + 1) shortest = Math.min(shortest, rest / FPS);
      rest = 0;
    }
    if (i >= 3) {
      const third = states[i]!.map(
        (x, k) => x - 3 * states[i - 1]![k]! + 3 * states[i - 2]![k]! - states[i - 3]![k]!,
      );
      jerk = Math.max(jerk, Math.hypot(...third) * FPS ** 3);
    }
  }
  const minutes = session.seconds / 60;
  return {
    middle: share(
      presses.filter((a) => isWithin(a.rect, middleOf(viewOf(a)))).length,
      presses.length,
    ),
    inView: share(presses.filter((a) => isWithin(a.rect, viewOf(a))).length, presses.length),
    attention: share(
      seen.reduce((sum, a) => sum + (isWithin(a.rect, viewOf(a)) ? a.gain : 0), 0),
      gains,
    ),
    ...{ moves: moves / minutes, shortest, travel: travel / minutes, jerk },
    beyond: beyond / frames,
    cut: rests ? cut / rests : 0,
    letters:
      seen.reduce(
        (sum, a) => sum + (a.gain * smallLetters(page) * FRAME.width) / viewOf(a).width,
        0,
      ) / gains,
    gained: share(
      seen.reduce((sum, a) => sum + (a.gain * whole.width) / viewOf(a).width, 0),
      gains,
    ),
  };
}

const percent = (x: number) => `${(x * 100).toFixed(0)} %`;

const row = (name: string, j: Judged): string[] => [
  name,
  ...[percent(j.inView), percent(j.middle), percent(j.attention), j.moves.toFixed(1)],
  j.shortest === Infinity ? '-' : `${j.shortest.toFixed(1)} s`,
  ...[j.travel.toFixed(1), j.jerk.toFixed(0), percent(j.beyond), j.gained.toFixed(2)],
  ...[j.cut.toFixed(1), Number.isFinite(j.letters) ? j.letters.toFixed(1) : '-'],
];

/**
 * Judges planned framings over ten made sessions, beside a view that is centred on the pointer and
 * a zoom for each press.
 */
export function benchFraming(): void {
  const head = [
    ...['session', 'presses in view', 'in the middle 80 %', 'attention in view', 'moves a minute'],
    ...['shortest hold', 'travel', 'jerk', 'beyond the limit', 'magnification'],
    ...['cut a view', 'letters'],
  ];
  const rows = {
    ...{ planned: [] as string[][], blind: [] as string[][] },
    ...{ centred: [] as string[][], each: [] as string[][] },
  };
  const took: string[][] = [];
  for (const session of sessions()) {
    const { view, ms } = planned(session);
    took.push([session.name, `${(session.seconds / 60).toFixed(1)} min`, `${ms.toFixed(0)} ms`]);
    rows.planned.push(row(session.name, judge(session, view)));
    rows.blind.push(row(session.name, judge(session, planned(session, false).view)));
    rows.centred.push(row(session.name, judge(session, centred(session))));
    rows.each.push(row(session.name, judge(session, zoomForEach(session))));
  }
  console.log('\nPlanned as a whole\n');
  console.log(table(head, rows.planned));
  console.log('\nPlanned without knowing what stands on the screen\n');
  console.log(table(head, rows.blind));
  console.log('\nA view centred on the pointer\n');
  console.log(table(head, rows.centred));
  console.log('\nA zoom for each press\n');
  console.log(table(head, rows.each));
  console.log('\nTime to plan\n');
  console.log(table(['session', 'length', 'planned in'], took));
}
