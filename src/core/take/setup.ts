import type { LayoutKind } from '../layout/built-in';
import type { FootageRect } from '../project/model';
import type { TrackName } from './take';

/** One recording of a take as it was set up. */
export interface TrackSetup {
  readonly name: TrackName;
  readonly type: 'video' | 'audio';
  /** The device, as its owner knows it. */
  readonly label: string;
  /** Pixels; 0 for sound. */
  readonly width: number;
  readonly height: number;
  /** Most frames a second; 0 for sound. */
  readonly frameRate: number;
  /** Samples a second and channels; 0 for pictures. */
  readonly sampleRate: number;
  readonly channels: number;
}

/** What a take is recorded with, and what of its settings is kept as data. */
export interface TakeSetup {
  readonly tracks: readonly TrackSetup[];
  /** Part of the screen recording that counts as the whole; null for all of it. */
  readonly area: FootageRect | null;
  /** dB for the voice. */
  readonly gain: number;
  readonly camera: {
    readonly mirror: boolean;
    readonly brightness: number;
    readonly contrast: number;
    /** Part of the camera's picture; null for all of it. */
    readonly area: FootageRect | null;
  };
  /** Seconds that live drawings stay; null until they are erased. */
  readonly hold: number | null;
  /** Layout at the take's start. */
  readonly layout: LayoutKind;
}
