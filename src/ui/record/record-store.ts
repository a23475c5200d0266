import { createContext, useContext } from 'react';
import { nanoid } from 'nanoid';
import { createStore, useStore, type StoreApi } from 'zustand';
import { useShallow } from 'zustand/react/shallow';
import { listDevices, openCamera, openMicrophone, openScreen, SourceError } from '@/capture/open';
import { PracticeCamera } from '@/capture/practice/camera';
import { PracticeMicrophone } from '@/capture/practice/microphone';
import { PracticeScreen, type ScreenAction } from '@/capture/practice/screen';
import { canRecord, Recorder, type RecordedSource } from '@/capture/recorder';
import { TakeClock } from '@/capture/take-clock';
import { finishedTake, putTakeAway } from '@/capture/ended-take';
import { call } from '@/contract/call';
import { freeDisk } from '@/contract/disk';
import { changeTake, viewTake } from '@/contract/takes';
import { LIVE_COLORS } from '@/core/take/palette';
import type { LayoutKind } from '@/core/layout/built-in';
import type { Layout } from '@/core/layout/model';
import type { EndReason, TakeEvent } from '@/core/take/take';
import type { EditorState } from '../edit/session/state';
import { tell, tellFault } from '../shell/notices-store';
import { nextPhase, READY, type PhaseState } from './phase';
import { keepAndPlace } from './place-take';
import type { RecordState, SourceName, SourceView } from './record-state';
import { loadSettings, saveSettings, sizeOf } from './settings';

const OFF: SourceView = { state: 'off', message: '', choice: 'off', open: null };
const THINGS: Record<SourceName, string> = {
  screen: 'screen',
  camera: 'camera',
  voice: 'microphone',
};
const POINTER_MS = 8;
/** A flash is announced this long before, so that all devices can do it at one instant. */
const FLASH_IN_MS = 150;

const ENDS: Partial<Record<EndReason, string>> = {
  time: 'The take ended after the set time.',
  'sharing ended':
    'The take ended because sharing was stopped in the browser. Everything up to there is kept.',
  unplugged: 'The take ended because a device was unplugged. Everything up to there is kept.',
  'disk full':
    'The take ended because the disk is full. Everything that fitted is kept; free some space before the next take.',
  failed:
    'The take ended because the picture could no longer be encoded. Everything up to there is kept.',
};

/** The sources that a kind of take records, out of those that are on. */
function recorded({ sources, kind, computer, settings }: RecordState): RecordedSource[] {
  const found: RecordedSource[] = [];
  const { frameRate } = settings;
  const screen = sources.screen.open;
  if (screen && kind !== 'voice') {
    found.push({ name: 'screen', track: screen.track, frameRate });
    if (screen.sound && computer)
      found.push({ name: 'computer', track: screen.sound, frameRate: 0 });
  }
  const camera = sources.camera.open;
  if (camera && kind !== 'screen')
    found.push({ name: 'camera', track: camera.track, frameRate: Math.min(30, frameRate) });
  const voice = sources.voice.open;
  if (voice && kind !== 'screen') found.push({ name: 'voice', track: voice.track, frameRate: 0 });
  return found.filter((s) => s.track.readyState === 'live');
}

/** What is noted of a layout that is chosen: a saved one counts before the built-in one. */
const layoutEvent = (kind: LayoutKind, own: Layout | null) => ({
  ...{ type: 'layout' as const, kind },
  ...(own && { own }),
});

export function createRecordStore(editor: StoreApi<EditorState>): StoreApi<RecordState> {
  return createStore<RecordState>()((set, get) => {
    let recorder: Recorder | null = null;
    let clock: TakeClock | null = null;
    let stopTimer: ReturnType<typeof setTimeout> | null = null;
    let countTimer: ReturnType<typeof setInterval> | null = null;
    let unwatch: (() => void) | null = null;
    let lastPointer = 0;
    /** Counts the takes that were begun, so that one that was taken back is told from the next. */
    let attempt = 0;

    const setSource = (name: SourceName, view: Partial<SourceView>) =>
      set((s) => ({ sources: { ...s.sources, [name]: { ...s.sources[name], ...view } } }));
    const refreshDevices = async () => set(await listDevices());
    const refreshDisk = () => void call(freeDisk).then(set, () => undefined);

    const onAction = (action: ScreenAction, at: number) => {
      const { phase } = get();
      if (phase !== 'recording' || !recorder) return;
      if (action.type === 'pointer') {
        if (at - lastPointer < POINTER_MS) return;
        lastPointer = at;
        recorder.event(
          { type: 'pointer', x: Math.round(action.x * 10) / 10, y: Math.round(action.y * 10) / 10 },
          at,
        );
      } else recorder.event(action, at);
    };
    const practiceScreen = () => {
      const { practice } = get().sources.screen.open ?? {};
      return practice instanceof PracticeScreen ? practice : null;
    };
    const begun = () => {
      const screen = get().kind === 'voice' ? null : practiceScreen();
      if (screen) {
        unwatch?.();
        unwatch = screen.onAction(onAction);
        recorder?.event({ type: 'shape', shape: 'arrow' });
      } else if (get().kind !== 'voice')
        unwatch =
          get().sources.screen.open?.onPointer?.((x, y, at) =>
            onAction({ type: 'pointer', x, y }, at),
          ) ?? null;
    };

    const ended = (reason: EndReason) => {
      if (get().phase === 'recording' || get().phase === 'paused') void get().stop(reason);
    };

    void refreshDevices();
    refreshDisk();
    const onDevices = () => void refreshDevices();
    navigator.mediaDevices?.addEventListener?.('devicechange', onDevices);

    return {
      sources: { screen: OFF, camera: OFF, voice: OFF },
      computer: false,
      cameras: [],
      microphones: [],
      settings: loadSettings(),
      kind: 'all',
      stepId: editor.getState().project.steps[0]?.id ?? null,
      ...READY,
      progress: null,
      area: null,
      cameraLook: {
        mirror: editor.getState().project.presenter.mirror,
        brightness: 0,
        contrast: 1,
        area: null,
      },
      gain: 0,
      layout: 'corner',
      ownLayout: null,
      tool: 'operate',
      color: LIVE_COLORS[0][1],
      lineWidth: 1,
      live: [],
      free: null,
      busy: false,

      set: (change) => set(change),
      send(event) {
        const before = get();
        const { phase, countdown, takeId, review, ghost } = before;
        const held = { phase, countdown, takeId, review, ghost } as PhaseState;
        const next = nextPhase(held, event);
        if (next === held) return false;
        set(next);
        return true;
      },
      change(change) {
        const settings = { ...get().settings, ...change };
        saveSettings(settings);
        set({ settings });
      },
      async choose(name, choice) {
        get().sources[name].open?.stop();
        if (choice === 'off') return setSource(name, OFF);
        setSource(name, { state: 'opening', message: '', choice, open: null });
        const { settings, computer } = get();
        try {
          if (!canRecord())
            throw new SourceError(
              'unsupported',
              'This browser can’t record frame by frame. A Chromium-based one can; or bring recordings made elsewhere.',
            );
          const open =
            name === 'screen'
              ? await openScreen(choice as 'practice' | 'share' | 'own', {
                  size: sizeOf(settings.practiceSize),
                  frameRate: settings.frameRate,
                  sound: computer,
                })
              : name === 'camera'
                ? await openCamera(choice, sizeOf(settings.cameraSize), settings.frameRate)
                : await openMicrophone(choice, settings.mood, settings.automaticGain);
          if (get().sources[name].choice !== choice) return open.stop();
          open.track.addEventListener('ended', () => {
            if (get().sources[name].open !== open) return;
            setSource(name, {
              state: 'ended',
              open: null,
              choice: 'off',
              message:
                name === 'screen'
                  ? 'Sharing was stopped in the browser. Switch it on again to go on.'
                  : `The ${THINGS[name]} was unplugged. Plug it in, or choose another one.`,
            });
          });
          setSource(name, { state: 'ready', open, message: '' });
          void refreshDevices();
        } catch (error) {
          const known =
            error instanceof SourceError
              ? error
              : new SourceError('busy', error instanceof Error ? error.message : String(error));
          setSource(name, {
            state: known.state,
            message: known.message,
            choice: 'off',
            open: null,
          });
        }
      },
      setComputer(computer) {
        set({ computer });
        const { choice } = get().sources.screen;
        // The sound comes with the screen, so that has to be asked for again.
        if (choice === 'share' || choice === 'own') void get().choose('screen', choice);
      },
      setMood(mood) {
        get().change({ mood });
        const { practice } = get().sources.voice.open ?? {};
        if (practice instanceof PracticeMicrophone) practice.setMood(mood);
      },
      async start() {
        const { phase, settings, kind, stepId, send } = get();
        if (phase !== 'ready') return;
        const sources = recorded(get());
        if (!sources.length) {
          tellFault(
            kind === 'voice'
              ? 'Switch a microphone on first.'
              : kind === 'screen'
                ? 'Switch a screen on first.'
                : 'Switch a source on first: screen, camera or microphone.',
          );
          return;
        }
        recorder ??= new Recorder(
          (progress) =>
            set({ progress, ...(progress.free === null ? {} : { free: progress.free }) }),
          ended,
        );
        send({ type: 'start', countdown: settings.countdown });
        set({ live: [], progress: null });
        const mine = ++attempt;
        const takenBack = () => attempt !== mine || get().phase !== 'countdown';
        try {
          await recorder.arm(sources);
          await new Promise<void>((resolve, reject) => {
            if (!settings.countdown) return resolve();
            countTimer = setInterval(() => {
              if (takenBack()) {
                clearInterval(countTimer!);
                return reject(new Error('cancelled'));
              }
              send({ type: 'tick' });
              if (get().countdown > 0) return;
              clearInterval(countTimer!);
              resolve();
            }, 1000);
          });
          const { area, gain, cameraLook, layout, ownLayout } = get();
          const takeId = nanoid();
          const began = await recorder.begin({
            projectId: editor.getState().id,
            takeId,
            stepId,
            kind,
            setup: {
              tracks: sources.map(({ name, track }) => ({
                name,
                label: (
                  get().sources[name === 'computer' ? 'screen' : name].open?.label ?? track.label
                ).slice(0, 200),
              })),
              area,
              gain,
              camera: cameraLook,
              hold: settings.hold || null,
              layout,
            },
          });
          if (takenBack()) {
            // Taken back while the devices were waited for.
            await recorder.finish('stopped');
            await putTakeAway(takeId);
            return;
          }
          clock = new TakeClock(began);
          send({ type: 'begun', takeId });
          begun();
          recorder.event(layoutEvent(layout, ownLayout), began);
          if (settings.stopAfter)
            stopTimer = setTimeout(() => ended('time'), settings.stopAfter * 1000);
        } catch (error) {
          if (attempt === mine) send({ type: 'cancel' });
          void recorder.disarm();
          if (!(error instanceof Error && error.message === 'cancelled')) tellFault(error);
        }
      },
      async stop(reason = 'stopped') {
        const { takeId, send } = get();
        if (send({ type: 'cancel' })) return;
        if (!recorder || !takeId || !send({ type: 'stop' })) return;
        if (stopTimer) clearTimeout(stopTimer);
        unwatch?.();
        unwatch = null;
        const told = await recorder.finish(reason);
        if (ENDS[reason]) tell(ENDS[reason]);
        refreshDisk();
        if (!told) {
          tellFault(
            'The server does not answer. The take is kept in this browser and can be rescued here when the server is back.',
          );
          send({ type: 'closed', review: null });
          return;
        }
        const review = await finishedTake(takeId).catch((error: unknown) => {
          tellFault(error);
          return null;
        });
        send({ type: 'closed', review });
      },
      async pause() {
        if (!recorder) return;
        if (!get().send({ type: 'pause', ghost: practiceScreen()?.pointer ?? null })) return;
        clock?.pause(performance.now());
        await recorder.pause();
      },
      async resume() {
        if (get().phase !== 'paused' || !recorder) return;
        clock?.resume(performance.now());
        await recorder.resume();
        get().send({ type: 'resume' });
        const at = practiceScreen()?.pointer;
        if (at && get().kind !== 'voice') recorder.event({ type: 'pointer', ...at });
      },
      note(event, at = performance.now()) {
        const { phase, live } = get();
        const t = clock?.at(at);
        if (phase !== 'recording' || !recorder || t === null || t === undefined) return;
        recorder.event(event, at);
        set({ live: [...live, { ...event, t } as TakeEvent] });
      },
      takeTime: () => clock?.now(performance.now()) ?? 0,
      setLayout(layout) {
        const own = typeof layout === 'string' ? null : layout;
        set({ ownLayout: own, ...(typeof layout === 'string' && { layout }) });
        get().note(layoutEvent(get().layout, own));
      },
      async keep(again) {
        const { review, kind, stepId } = get();
        if (!review || get().busy) return;
        set({ busy: true });
        try {
          const placed = await keepAndPlace(editor, review.id);
          if (placed)
            tell('The take stands at its step.', {
              label: 'Undo',
              run: () => editor.getState().undo(),
            });
          get().send({ type: 'leave' });
          const { steps } = editor.getState().project;
          const index = steps.findIndex((s) => s.id === stepId);
          // Step by step means: on to the next.
          if (!again && index >= 0 && index + 1 < steps.length && kind !== 'all')
            set({ stepId: steps[index + 1]!.id });
        } catch (error) {
          tellFault(error);
        } finally {
          set({ busy: false });
        }
        if (again && get().phase === 'ready') void get().start();
      },
      async discard(take) {
        try {
          await putTakeAway(take.id);
          const restore = async () => {
            await call(changeTake, { params: { id: take.id }, body: { discarded: false } });
            const found = await call(viewTake, { params: { id: take.id } });
            if (!get().send({ type: 'show', take: found }))
              tell('The take is back. It is in the drawer of takes.');
          };
          tell('The take was discarded.', {
            label: 'Undo',
            run: () => void restore().catch(tellFault),
          });
          get().send({ type: 'leave' });
        } catch (error) {
          tellFault(error);
        }
      },
      flash() {
        const { sources } = get();
        const at = performance.timeOrigin + performance.now() + FLASH_IN_MS;
        for (const { open } of Object.values(sources)) {
          const { practice } = open ?? {};
          if (practice instanceof PracticeScreen || practice instanceof PracticeCamera)
            practice.flash(at);
          if (practice instanceof PracticeMicrophone) practice.click(FLASH_IN_MS);
        }
      },
      dispose() {
        navigator.mediaDevices?.removeEventListener?.('devicechange', onDevices);
        attempt++;
        if (countTimer) clearInterval(countTimer);
        if (stopTimer) clearTimeout(stopTimer);
        unwatch?.();
        for (const { open } of Object.values(get().sources)) open?.stop();
        recorder?.dispose();
      },
    };
  });
}

const RecordContext = createContext<StoreApi<RecordState> | null>(null);
export const RecordProvider = RecordContext.Provider;

export function useRecordStore(): StoreApi<RecordState> {
  const store = useContext(RecordContext);
  if (!store) throw new Error('There is no recording session around this component.');
  return store;
}

/** A part of the session's state; the component is drawn again when it changes. */
export const useRecord = <T>(select: (state: RecordState) => T): T =>
  useStore(useRecordStore(), useShallow(select));
