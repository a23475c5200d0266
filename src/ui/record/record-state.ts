import type { Device, OpenSource } from '@/capture/open';
import type { LiveEvent, TakeProgress } from '@/capture/recorder-worker';
import type { TakeView } from '@/contract/takes';
import type { LayoutKind } from '@/core/layout/built-in';
import type { Layout } from '@/core/layout/model';
import type { FootageRect } from '@/core/project/model';
import type { TakeSetup } from '@/core/take/setup';
import type { EndReason, TakeEvent, TakeKind } from '@/core/take/take';
import type { PhaseEvent, PhaseState } from './phase';
import type { RecordSettings } from './settings';

export type SourceName = 'screen' | 'camera' | 'voice';

/** One source as the interface shows it. */
export interface SourceView {
  readonly state:
    | 'off'
    | 'opening'
    | 'ready'
    | 'blocked'
    | 'missing'
    | 'busy'
    | 'unsupported'
    | 'ended';
  readonly message: string;
  readonly choice: string;
  readonly open: OpenSource | null;
}

export type Tool = 'operate' | 'pen' | 'marker' | 'arrow' | 'box' | 'ellipse' | 'text' | 'eraser';

/** What a recording session knows, beside where recording stands. */
interface RecordParts {
  readonly sources: Readonly<Record<SourceName, SourceView>>;
  /** Whether the computer's sound is asked for with the screen. */
  readonly computer: boolean;
  readonly cameras: readonly Device[];
  readonly microphones: readonly Device[];
  readonly settings: RecordSettings;
  readonly kind: TakeKind;
  readonly stepId: string | null;
  readonly progress: TakeProgress | null;
  readonly area: FootageRect | null;
  readonly cameraLook: TakeSetup['camera'];
  readonly gain: number;
  readonly layout: LayoutKind;
  /** One that was saved, in the place of that. */
  readonly ownLayout: Layout | null;
  readonly tool: Tool;
  readonly color: string;
  readonly lineWidth: number;
  /** What was drawn and done live in this take, at take times. */
  readonly live: readonly TakeEvent[];
  readonly free: number | null;
  readonly busy: boolean;

  readonly set: (change: Partial<RecordParts>) => void;
  /** Tells of something that may move recording to another phase; whether it did. */
  readonly send: (event: PhaseEvent) => boolean;
  readonly change: (settings: Partial<RecordSettings>) => void;
  readonly choose: (name: SourceName, choice: string) => Promise<void>;
  readonly setComputer: (on: boolean) => void;
  readonly setMood: (mood: RecordSettings['mood']) => void;
  readonly start: () => Promise<void>;
  readonly stop: (reason?: EndReason) => Promise<void>;
  readonly pause: () => Promise<void>;
  readonly resume: () => Promise<void>;
  /** Notes what was done live; `at` is a page time, now if it is not given. */
  readonly note: (event: LiveEvent, at?: number) => void;
  /** Take time now, in ms. */
  readonly takeTime: () => number;
  readonly setLayout: (layout: LayoutKind | Layout) => void;
  readonly keep: (again: boolean) => Promise<void>;
  readonly discard: (take: TakeView) => Promise<void>;
  readonly flash: () => void;
  readonly dispose: () => void;
}

export type RecordState = RecordParts & PhaseState;
