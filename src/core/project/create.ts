import { newTheme } from '../callout/theme';
import { defaultsOf } from '../schema/setting';
import { rateFromNumber, type FrameRate } from '../time/ticks';
import { targetOf, type TargetId } from './targets';
import {
  PROJECT_FORMAT,
  PROJECT_VERSION,
  PresenterPlacement,
  type Clip,
  type Lane,
  type LaneKind,
  type Project,
} from './model';

const LANE_NAMES: Record<LaneKind, string> = {
  presenter: 'Presenter',
  screen: 'Screen',
  voice: 'Voice',
  music: 'Music',
  computer: 'Computer sound',
};

/**
 * An empty lane of a kind, with the kind's usual name. Music starts 16 dB down, under the voice.
 */
export const createLane = (
  kind: LaneKind,
  id: string = kind,
  name: string = LANE_NAMES[kind],
): Lane => ({
  id,
  kind,
  name,
  gain: kind === 'music' ? -16 : 0,
  off: false,
  solo: false,
  locked: false,
  height: 1,
  clips: [],
});

/** A clip as it is when newly placed: at its own speed, with nothing set. */
export const createClip = (
  clip: Pick<Clip, 'id' | 'footageId' | 'start' | 'duration' | 'source' | 'link'> & Partial<Clip>,
): Clip => ({
  id: clip.id,
  footageId: clip.footageId,
  start: clip.start,
  duration: clip.duration,
  source: clip.source,
  link: clip.link,
  speed: clip.speed ?? 1,
  gain: clip.gain ?? 0,
  muted: clip.muted ?? false,
  fadeIn: clip.fadeIn ?? 0,
  fadeOut: clip.fadeOut ?? 0,
  envelope: clip.envelope ?? [],
  transitionIn: clip.transitionIn ?? null,
  transitionOut: clip.transitionOut ?? null,
  group: clip.group ?? null,
});

export const DEFAULT_MARKER_COLOR = '#8e3f66';

/** Where the presenter stands unless something else was set. */
export const DEFAULT_PLACEMENT: PresenterPlacement = defaultsOf(PresenterPlacement);

/** How fast narration is read unless a project says otherwise. */
export const DEFAULT_WORDS_PER_MINUTE = 140;

/**
 * An empty project of a size in pixels (made even, as 4:2:0 video needs) and a frame rate.
 *
 * @throws RangeError for a side outside 16 to 7680 pixels.
 */
export function createProject(
  width: number,
  height: number,
  frameRate: FrameRate = rateFromNumber(30),
  targetId: TargetId = 'web',
): Project {
  const { id, loudness, captions } = targetOf(targetId);
  const even = (n: number) => Math.round(n / 2) * 2;
  for (const side of [width, height])
    if (!(side >= 16 && side <= 7680))
      throw new RangeError('A picture is 16 to 7680 px wide and high.');
  return {
    format: PROJECT_FORMAT,
    version: PROJECT_VERSION,
    canvas: {
      width: even(width),
      height: even(height),
      frameRate,
      background: '#1e2a32',
      crisp: true,
    },
    target: { id, loudness, captions },
    script: { wordsPerMinute: DEFAULT_WORDS_PER_MINUTE },
    theme: newTheme(even(height)),
    lanes: (['presenter', 'screen', 'voice', 'music', 'computer'] as const).map((kind) =>
      createLane(kind),
    ),
    framings: [],
    layouts: [],
    pointer: [],
    callouts: [],
    steps: [],
    markers: [],
    groups: [],
    presenter: DEFAULT_PLACEMENT,
    keys: [],
    corrections: [],
    looks: [],
  };
}
