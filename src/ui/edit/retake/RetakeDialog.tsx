'use client';
import { X } from 'lucide-react';
import { Dialog as Radix } from 'radix-ui';
import { useEffect, useRef, useState } from 'react';
import { listDevices, type Device } from '@/capture/open';
import { canRecord } from '@/capture/recorder';
import { stepAt } from '@/core/project/query';
import { ticksToSeconds } from '@/core/time/ticks';
import { formatTimecode } from '@/core/time/timecode';
import type { Player } from '@/preview/player';
import { useKeysHeld } from '../../keys/use-key-scope';
import { Button } from '../../parts/Button';
import { inputLook } from '../../parts/fields';
import { tell, tellFault } from '../../shell/notices-store';
import { rangeOf, useEditor, useEditorStore } from '../store';
import { RetakeSession, type RetakePhase } from './session';

const WORDS: Record<RetakePhase, string> = {
  lead: 'Get ready: the range begins in a moment',
  recording: 'Speak now',
  saving: 'Putting the words in place',
};

/**
 * Records the words of the range again while the Picture plays; lies beside the Picture, which
 * stays in sight.
 */
export function RetakeDialog({ onClose, player }: { onClose: () => void; player: Player | null }) {
  const store = useEditorStore();
  const range = useEditor((s) => rangeOf(s));
  const rate = useEditor((s) => s.project.canvas.frameRate);
  const step = useEditor((s) => (rangeOf(s) ? stepAt(s.project, rangeOf(s)!.start) : null));
  const [microphones, setMicrophones] = useState<readonly Device[]>([]);
  const [microphone, setMicrophone] = useState('default');
  const [phase, setPhase] = useState<RetakePhase | null>(null);
  const session = useRef<RetakeSession | null>(null);
  useEffect(() => {
    void listDevices().then((found) => setMicrophones(found.microphones));
    return () => session.current?.cancel();
  }, []);
  const record = async () => {
    if (!range || !player) return;
    const run = new RetakeSession(store, player, range, setPhase);
    session.current = run;
    setPhase('lead');
    try {
      const id = await run.run(microphone);
      if (id) {
        tell('The new words are in place. The old ones are on the muted lane Old words.', {
          label: 'Undo',
          run: () => store.getState().undo(),
        });
        store.getState().select({ kind: 'clip', id });
        onClose();
      }
    } catch (error) {
      tellFault(error);
    } finally {
      session.current = null;
      setPhase(null);
    }
  };
  const leave = () => (session.current ? session.current.cancel() : onClose());
  useKeysHeld(true, leave);
  if (!range) return null;
  return (
    <Radix.Root open modal={false}>
      <Radix.Portal>
        <Radix.Content
          className="fixed top-12 right-3 z-40 grid w-[400px] gap-3 border border-line bg-sheet p-4 shadow-xl"
          onInteractOutside={(e) => e.preventDefault()}
          onEscapeKeyDown={(e) => {
            e.preventDefault();
            leave();
          }}
        >
          <div className="flex items-start justify-between">
            <Radix.Title className="text-lg font-semibold">Retake</Radix.Title>
            <button aria-label="Close" onClick={onClose} disabled={phase !== null}>
              <X size={16} />
            </button>
          </div>
          <Radix.Description className="text-ink-2">
            The words from <span className="numbers">{formatTimecode(range.start, rate)}</span> to{' '}
            <span className="numbers">{formatTimecode(range.end, rate)}</span> (
            {ticksToSeconds(range.end - range.start).toFixed(1)} s) are recorded again while the
            Picture plays. The old words are kept on a muted lane.
          </Radix.Description>
          {step && (step.narration || step.title) && (
            <p
              dir="auto"
              className="max-h-40 overflow-auto border-l-2 border-action bg-paper px-3 py-2 text-base"
            >
              {step.narration || step.title}
            </p>
          )}
          <label className="grid gap-1">
            Microphone
            <select
              className={inputLook}
              value={microphone}
              disabled={phase !== null}
              onChange={(e) => setMicrophone(e.target.value)}
            >
              <option value="default">The usual one</option>
              {microphones
                .filter((m) => m.id !== 'default')
                .map((m) => (
                  <option key={m.id} value={m.id}>
                    {m.label}
                  </option>
                ))}
              <option value="practice">Practice microphone</option>
            </select>
          </label>
          {phase && (
            <p
              role="status"
              className={`text-base font-semibold ${phase === 'recording' ? 'text-fault' : ''}`}
            >
              {WORDS[phase]}
            </p>
          )}
          {!canRecord() && (
            <p className="text-caution">
              This browser can’t record as Vistum needs it; a Chromium-based one can.
            </p>
          )}
          <div className="flex justify-end gap-2">
            {phase ? (
              <>
                <Button disabled={phase === 'saving'} onClick={() => session.current?.cancel()}>
                  Cancel
                </Button>
                <Button
                  look="primary"
                  disabled={phase === 'saving'}
                  onClick={() => session.current?.stop()}
                >
                  Stop here
                </Button>
              </>
            ) : (
              <>
                <Button onClick={onClose}>Leave it as it is</Button>
                <Button
                  look="primary"
                  disabled={!canRecord() || !player}
                  onClick={() => void record()}
                >
                  Record the words
                </Button>
              </>
            )}
          </div>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
