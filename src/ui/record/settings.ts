import type { MicrophoneMood } from '@/capture/practice/microphone';
import { keep, keptText } from '../parts/kept';

/** What is remembered of the Record place in this browser. */
export interface RecordSettings {
  /** Seconds before recording begins, 0 to 10. */
  readonly countdown: number;
  /** Seconds after which a take ends by itself; 0 never. */
  readonly stopAfter: number;
  /** 15 to 60. */
  readonly frameRate: number;
  /** Seconds that drawings stay; 0 until they are erased. */
  readonly hold: number;
  readonly practiceSize: string;
  readonly cameraSize: string;
  readonly mood: MicrophoneMood;
  readonly automaticGain: boolean;
}

export const DEFAULT_SETTINGS: RecordSettings = {
  countdown: 3,
  stopAfter: 0,
  frameRate: 30,
  hold: 0,
  practiceSize: '1920x1080',
  cameraSize: '1280x720',
  mood: 'good',
  automaticGain: false,
};

const PLACE = 'record-settings';

export function loadSettings(): RecordSettings {
  try {
    return { ...DEFAULT_SETTINGS, ...(JSON.parse(keptText(PLACE) ?? '{}') as object) };
  } catch {
    return DEFAULT_SETTINGS;
  }
}

export const saveSettings = (settings: RecordSettings): void => keep(PLACE, settings);

export const sizeOf = (name: string): { width: number; height: number } => {
  const [width, height] = name.split('x').map(Number) as [number, number];
  return { width, height };
};
