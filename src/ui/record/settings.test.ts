import { DEFAULT_SETTINGS, keyName, loadSettings, RECORD_ACTIONS, saveSettings } from './settings';

const press = (key: string, code: string, more: Partial<Parameters<typeof keyName>[0]> = {}) =>
  keyName({ key, code, altKey: false, ctrlKey: false, metaKey: false, shiftKey: false, ...more });

test('keys are named by their place when a modifier changes their sign', () => {
  expect(press('®', 'KeyR', { altKey: true })).toBe('Alt+R');
  expect(press('¡', 'Digit1', { altKey: true })).toBe('Alt+1');
  expect(press('z', 'KeyZ', { ctrlKey: true, shiftKey: true })).toBe('Ctrl+Shift+Z');
  expect(press('z', 'KeyZ', { metaKey: true })).toBe('Ctrl+Z');
  expect(press('≥', 'Period', { altKey: true })).toBe('Alt+.');
  expect(press('F9', 'F9')).toBe('F9');
  expect(press('Alt', 'AltLeft', { altKey: true })).toBeNull();
});

test('every action has a key of its own', () => {
  const keys = RECORD_ACTIONS.map(([action]) => DEFAULT_SETTINGS.keys[action]);
  expect(new Set(keys).size).toBe(keys.length);
});

describe('what is remembered', () => {
  const store = new Map<string, string>();
  beforeEach(() => {
    store.clear();
    Object.assign(globalThis, {
      localStorage: {
        getItem: (k: string) => store.get(k) ?? null,
        setItem: (k: string, v: string) => void store.set(k, v),
      },
    });
  });

  test('is there again, and what is new since then has its usual value', () => {
    saveSettings({ ...DEFAULT_SETTINGS, countdown: 7 });
    expect(loadSettings().countdown).toBe(7);
    store.set('record-settings', JSON.stringify({ frameRate: 60 }));
    store.set('record-keys', JSON.stringify({ record: 'F9' }));
    expect(loadSettings()).toMatchObject({
      frameRate: 60,
      countdown: 3,
      keys: { record: 'F9', pause: 'Alt+.' },
    });
  });

  test('of the keys only those that were chosen are kept, so that usual ones may change', () => {
    saveSettings({ ...DEFAULT_SETTINGS, keys: { ...DEFAULT_SETTINGS.keys, pen: 'F7' } });
    expect(JSON.parse(store.get('record-keys')!)).toEqual({ pen: 'F7' });
    expect(loadSettings().keys).toEqual({ ...DEFAULT_SETTINGS.keys, pen: 'F7' });
  });

  test('nonsense and a browser without storage are no obstacle', () => {
    store.set('record-settings', '{');
    expect(loadSettings()).toEqual(DEFAULT_SETTINGS);
    Object.assign(globalThis, {
      localStorage: {
        getItem: () => {
          throw new Error('denied');
        },
        setItem: () => {
          throw new Error('denied');
        },
      },
    });
    expect(loadSettings()).toEqual(DEFAULT_SETTINGS);
    expect(() => saveSettings(DEFAULT_SETTINGS)).not.toThrow();
  });
});
