import { rateFromNumber, type FrameRate } from '../time/ticks';
import { targetOf, type TargetId } from './targets';
import { PROJECT_FORMAT, PROJECT_VERSION, type Lane, type LaneKind, type PresenterPlacement, type Project } from './model';

const LANE_NAMES: Record<LaneKind, string> = {
  presenter: 'Presenter',
  screen: 'Screen',
  voice: 'Voice',
  music: 'Music',
  computer: 'Computer sound',
};

/** An empty lane of a kind, with the kind's usual name. Music starts 16 dB down, under the voice. */
export const createLane = (kind: LaneKind): Lane => ({
  id: kind,
  kind,
  name: LANE_NAMES[kind],
  gain: kind === 'music' ? -16 : 0,
  off: false,
  locked: false,
  clips: [],
});

export const DEFAULT_PLACEMENT: PresenterPlacement = {
  corner: 'bottom-right',
  size: 0.3,
  margin: 0.035,
  shape: 'circle',
  mirror: false,
  center: { x: 0.5, y: 0.42 },
  crop: 0.84,
  backdrop: '#e3eef2',
  ring: { width: 4, color: '#0e6b63' },
};

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
  for (const side of [width, height]) if (!(side >= 16 && side <= 7680)) throw new RangeError('A picture is 16 to 7680 px wide and high.');
  return {
    format: PROJECT_FORMAT,
    version: PROJECT_VERSION,
    canvas: { width: even(width), height: even(height), frameRate, background: '#1e2a32' },
    target: { id, loudness, captions },
    script: { wordsPerMinute: DEFAULT_WORDS_PER_MINUTE },
    lanes: (['presenter', 'screen', 'voice', 'music', 'computer'] as const).map(createLane),
    framings: [],
    layouts: [],
    pointer: [],
    callouts: [],
    steps: [],
    markers: [],
    presenter: DEFAULT_PLACEMENT,
    keys: [],
    looks: [],
  };
}
