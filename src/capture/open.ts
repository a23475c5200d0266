import { PracticeCamera } from './practice/camera';
import { canPractise } from './practice/generator';
import { PracticeMicrophone, type MicrophoneMood } from './practice/microphone';
import { PracticeScreen } from './practice/screen';

/** What can't be had, in words that say what to do. */
export class SourceError extends Error {
  constructor(
    readonly state: 'blocked' | 'missing' | 'busy' | 'unsupported',
    message: string,
  ) {
    super(message);
  }
}

export interface OpenSource {
  readonly track: MediaStreamTrack;
  readonly label: string;
  /** The computer's sound, when it came with the screen. */
  readonly sound?: MediaStreamTrack;
  readonly practice?: PracticeScreen | PracticeCamera | PracticeMicrophone;
  /**
   * Tells where the pointer is on what is shared, where the browser reports it. Answers how to
   * stop.
   */
  readonly onPointer?: (tell: (x: number, y: number, at: number) => void) => () => void;
  readonly stop: () => void;
}

type Thing = 'screen' | 'camera' | 'microphone';

const UNSUPPORTED: Record<Thing, string> = {
  screen:
    'This browser does not offer its screen to pages. Use a desktop browser, or bring a recording made elsewhere.',
  camera:
    'This browser offers no camera here. Pages must be opened from this computer or over a secure connection.',
  microphone:
    'This browser offers no microphone here. Pages must be opened from this computer or over a secure connection.',
};

function explain(error: unknown, thing: Thing): SourceError {
  const name = (error as DOMException | null)?.name;
  if (name === 'NotAllowedError' || name === 'SecurityError')
    return new SourceError(
      'blocked',
      thing === 'screen'
        ? 'Sharing was not allowed, or the list was closed. Switch it on again and choose what to share.'
        : `The browser blocks the ${thing}. Press the sign beside the page’s address, allow the ${thing}, then switch it on again.`,
    );
  if (
    name === 'NotFoundError' ||
    name === 'OverconstrainedError' ||
    name === 'DevicesNotFoundError'
  )
    return new SourceError(
      'missing',
      `No such ${thing} is plugged in. Plug it in, or choose another one.`,
    );
  if (name === 'NotReadableError' || name === 'AbortError')
    return new SourceError(
      'busy',
      `The ${thing} is used by another program, or does not answer. Close that program, then switch it on again.`,
    );
  if (name === 'TypeError' || name === 'NotSupportedError')
    return new SourceError('unsupported', UNSUPPORTED[thing]);
  return new SourceError(
    'busy',
    `The ${thing} could not be opened: ${error instanceof Error ? error.message : String(error)}`,
  );
}

const needPractice = () => {
  if (!canPractise())
    throw new SourceError(
      'unsupported',
      'This browser can’t run the practice devices; a Chromium-based one can.',
    );
};

/** Mouse events of a captured surface (W3C draft “Captured Mouse Events”): places in its pixels. */
interface PointerReporter extends EventTarget {
  oncapturedmousechange: unknown;
}
interface CapturedMouseEvent extends Event {
  readonly surfaceX?: number;
  readonly surfaceY?: number;
}

function pointerReporter(): PointerReporter | null {
  const Controller = (globalThis as { CaptureController?: new () => PointerReporter })
    .CaptureController;
  return Controller && 'oncapturedmousechange' in Controller.prototype ? new Controller() : null;
}

function listenTo(
  controller: PointerReporter,
  tell: (x: number, y: number, at: number) => void,
): () => void {
  const listener = (event: Event) => {
    const { surfaceX = -1, surfaceY = -1 } = event as CapturedMouseEvent;
    // Outside of what is shared both are negative.
    if (surfaceX >= 0 && surfaceY >= 0) tell(surfaceX, surfaceY, event.timeStamp);
  };
  controller.addEventListener('capturedmousechange', listener);
  return () => controller.removeEventListener('capturedmousechange', listener);
}

/** A screen, window or tab; `own` is this tab, without asking which. */
export async function openScreen(
  choice: 'practice' | 'share' | 'own',
  options: { size: { width: number; height: number }; frameRate: number; sound: boolean },
): Promise<OpenSource> {
  if (choice === 'practice') {
    needPractice();
    const practice = new PracticeScreen(options.size);
    return {
      track: practice.track,
      label: 'Practice screen',
      practice,
      stop: () => practice.stop(),
    };
  }
  if (!navigator.mediaDevices?.getDisplayMedia)
    throw new SourceError('unsupported', UNSUPPORTED.screen);
  const controller = pointerReporter();
  try {
    const stream = await navigator.mediaDevices.getDisplayMedia({
      ...(controller ? { controller } : {}),
      // A pointer that is reported is recorded as data, and need not be in the picture.
      video: {
        frameRate: { ideal: options.frameRate, max: options.frameRate },
        ...(controller ? { cursor: 'never' } : {}),
      },
      audio: options.sound,
      ...(choice === 'own' ? { preferCurrentTab: true, selfBrowserSurface: 'include' } : {}),
    } as DisplayMediaStreamOptions);
    const track = stream.getVideoTracks()[0]!;
    // Text stays sharp when the encoder has to choose.
    track.contentHint = 'detail';
    const onPointer = controller
      ? (tell: (x: number, y: number, at: number) => void) => listenTo(controller, tell)
      : undefined;
    return {
      track,
      label: track.label || 'Shared screen',
      sound: stream.getAudioTracks()[0],
      onPointer,
      stop: () => stream.getTracks().forEach((t) => t.stop()),
    };
  } catch (error) {
    throw explain(error, 'screen');
  }
}

/** A camera by its device id, or the practice camera. */
export async function openCamera(
  choice: string,
  size: { width: number; height: number },
  frameRate: number,
): Promise<OpenSource> {
  if (choice === 'practice') {
    needPractice();
    const practice = new PracticeCamera(size, Math.min(30, frameRate));
    return {
      track: practice.track,
      label: 'Practice camera',
      practice,
      stop: () => practice.stop(),
    };
  }
  if (!navigator.mediaDevices?.getUserMedia)
    throw new SourceError('unsupported', UNSUPPORTED.camera);
  try {
    const stream = await navigator.mediaDevices.getUserMedia({
      video: {
        ...(choice === 'default' ? {} : { deviceId: { exact: choice } }),
        width: { ideal: size.width },
        height: { ideal: size.height },
        frameRate: { ideal: Math.min(30, frameRate) },
      },
    });
    const track = stream.getVideoTracks()[0]!;
    return { track, label: track.label || 'Camera', stop: () => track.stop() };
  } catch (error) {
    throw explain(error, 'camera');
  }
}

/**
 * A microphone by its device id, or the practice microphone. Nothing is done to the voice that
 * could not be undone later.
 */
export async function openMicrophone(
  choice: string,
  mood: MicrophoneMood,
  automaticGain: boolean,
): Promise<OpenSource> {
  if (choice === 'practice') {
    needPractice();
    const practice = new PracticeMicrophone(mood);
    return {
      track: practice.track,
      label: 'Practice microphone',
      practice,
      stop: () => practice.stop(),
    };
  }
  if (!navigator.mediaDevices?.getUserMedia)
    throw new SourceError('unsupported', UNSUPPORTED.microphone);
  try {
    const stream = await navigator.mediaDevices.getUserMedia({
      audio: {
        ...(choice === 'default' ? {} : { deviceId: { exact: choice } }),
        echoCancellation: false,
        noiseSuppression: false,
        autoGainControl: automaticGain,
      },
    });
    const track = stream.getAudioTracks()[0]!;
    return { track, label: track.label || 'Microphone', stop: () => track.stop() };
  } catch (error) {
    throw explain(error, 'microphone');
  }
}

export interface Device {
  readonly id: string;
  readonly label: string;
}

/** Cameras and microphones that are plugged in; names are empty until the browser may tell them. */
export async function listDevices(): Promise<{ cameras: Device[]; microphones: Device[] }> {
  const all = (await navigator.mediaDevices?.enumerateDevices?.().catch(() => [])) ?? [];
  const of = (kind: MediaDeviceKind, name: string) =>
    all
      .filter((d) => d.kind === kind && d.deviceId !== 'communications')
      .map((d, i) => ({ id: d.deviceId || 'default', label: d.label || `${name} ${i + 1}` }));
  return { cameras: of('videoinput', 'Camera'), microphones: of('audioinput', 'Microphone') };
}
