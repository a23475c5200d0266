import type { MicrophoneMood } from '@/capture/practice/microphone';

/** Everything that can be done by key while recording. */
export const RECORD_ACTIONS = [
  ['record', 'Record or stop'],
  ['pause', 'Pause or resume'],
  ['mark', 'Marker'],
  ['next', 'Next step'],
  ['back', 'Step before'],
  ['redo', 'Keep and do it again'],
  ['corner', 'Layout: presenter in a corner'],
  ['side', 'Layout: side by side'],
  ['presenter', 'Layout: presenter only'],
  ['screen', 'Layout: screen only'],
  ['pen', 'Pen'],
  ['operate', 'Operate (no drawing)'],
  ['clear', 'Clear drawings'],
] as const;
export type RecordAction = (typeof RECORD_ACTIONS)[number][0];

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
  readonly keys: Readonly<Record<RecordAction, string>>;
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
  keys: {
    record: 'Alt+Enter',
    pause: 'Alt+.',
    mark: 'Alt+M',
    next: 'Alt+ArrowDown',
    back: 'Alt+ArrowUp',
    redo: 'Alt+Shift+R',
    corner: 'Alt+1',
    side: 'Alt+2',
    presenter: 'Alt+3',
    screen: 'Alt+4',
    pen: 'Alt+L',
    operate: 'Alt+O',
    clear: 'Alt+C',
  },
};

const PLACE = 'record-settings';
/** Keys apart, and only those that were chosen: the usual ones may change. */
const CHOSEN_KEYS = 'record-keys';

export function loadSettings(): RecordSettings {
  try {
    const read = (place: string) => JSON.parse(localStorage.getItem(place) ?? '{}') as object;
    const keys = { ...DEFAULT_SETTINGS.keys, ...read(CHOSEN_KEYS) };
    return { ...DEFAULT_SETTINGS, ...read(PLACE), keys };
  } catch {
    return DEFAULT_SETTINGS;
  }
}

export function saveSettings(settings: RecordSettings): void {
  try {
    const { keys, ...others } = settings;
    const chosen = Object.entries(keys).filter(
      ([action, key]) => DEFAULT_SETTINGS.keys[action as RecordAction] !== key,
    );
    localStorage.setItem(PLACE, JSON.stringify(others));
    localStorage.setItem(CHOSEN_KEYS, JSON.stringify(Object.fromEntries(chosen)));
  } catch {
    // Without storage the settings hold for as long as the page is open.
  }
}

/** The name of a key press, as settings keep it; null for a modifier alone. */
export function keyName(event: {
  key: string;
  code: string;
  altKey: boolean;
  ctrlKey: boolean;
  metaKey: boolean;
  shiftKey: boolean;
}): string | null {
  if (/^(Alt|Control|Meta|Shift|AltGraph)$/.test(event.key)) return null;
  // With Alt the character may be another one; the key's own place tells which it is.
  const key = /^Key[A-Z]$/.test(event.code)
    ? event.code.slice(3)
    : /^Digit\d$/.test(event.code)
      ? event.code.slice(5)
      : event.code === 'Period'
        ? '.'
        : event.key;
  return [
    event.ctrlKey || event.metaKey ? 'Ctrl+' : '',
    event.altKey ? 'Alt+' : '',
    event.shiftKey ? 'Shift+' : '',
    key.length === 1 ? key.toUpperCase() : key,
  ].join('');
}

export const sizeOf = (name: string): { width: number; height: number } => {
  const [width, height] = name.split('x').map(Number) as [number, number];
  return { width, height };
};
