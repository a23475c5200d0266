import { DEFAULT_SETTINGS, loadSettings, saveSettings } from './settings';

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
    expect(loadSettings()).toMatchObject({ frameRate: 60, countdown: 3 });
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
