let shared: AudioContext | null = null;

/**
 * The one audio context of recording. Opening and closing others interrupts those that run, so that
 * meters and the practice microphone share it; it stays open as long as the page.
 */
export function soundContext(): AudioContext {
  shared ??= new AudioContext({ sampleRate: 48_000, latencyHint: 'interactive' });
  // Browsers keep sound asleep until the user has done something.
  const wake = () => void shared!.resume();
  wake();
  if (shared.state !== 'running') window.addEventListener('pointerdown', wake, { once: true });
  return shared;
}
