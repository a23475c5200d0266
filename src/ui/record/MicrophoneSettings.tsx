'use client';
import { useState } from 'react';
import { listen } from '@/capture/meter';
import {
  checkMicrophone,
  microphoneAdvice,
  type MicrophoneCheck,
} from '@/core/audio/microphone-check';
import { Button } from '../parts/Button';
import { CheckField, SliderField } from '../parts/fields';
import { tellFault } from '../shell/notices-store';
import { LevelMeter } from './LevelMeter';
import { useRecord } from './record-store';

const SECONDS = 5;

/** The level, and a short test that says what is wrong before it is too late. */
export function MicrophoneSettings() {
  const source = useRecord((s) => s.sources.voice);
  const gain = useRecord((s) => s.gain);
  const automatic = useRecord((s) => s.settings.automaticGain);
  const busy = useRecord((s) => s.phase !== 'ready');
  const set = useRecord((s) => s.set);
  const change = useRecord((s) => s.change);
  const choose = useRecord((s) => s.choose);
  const [share, setShare] = useState<number | null>(null);
  const [check, setCheck] = useState<MicrophoneCheck | null>(null);
  const track = source.open?.track ?? null;
  const capabilities = (track?.getCapabilities?.() ?? {}) as { autoGainControl?: boolean[] };
  const deviceGain = source.choice !== 'practice' && !!capabilities.autoGainControl?.includes(true);
  const test = async () => {
    if (!track) return;
    setShare(0);
    setCheck(null);
    try {
      const { samples, rate } = await listen(track, SECONDS, setShare);
      setCheck(checkMicrophone(samples, rate));
    } catch (error) {
      tellFault(error);
    } finally {
      setShare(null);
    }
  };
  return (
    <div className="grid gap-2">
      <LevelMeter track={track} gain={gain} />
      <Button disabled={!track || share !== null || busy} onClick={() => void test()}>
        {share === null
          ? 'Test for five seconds'
          : `Speak now… ${Math.max(1, Math.ceil(SECONDS * (1 - share)))} s`}
      </Button>
      {check && (
        <div
          role="status"
          aria-label="Microphone test"
          className="border border-line bg-sheet p-2 text-xs"
        >
          <p
            className={`mb-1 text-sm font-semibold ${check.verdict === 'good' ? 'text-good' : 'text-fault'}`}
          >
            {check.verdict}
          </p>
          <p className="mb-1">{microphoneAdvice(check)}</p>
          <p className="numbers text-ink-2">
            speech {check.speech.toFixed(0)} · between words {check.floor.toFixed(0)} · peak{' '}
            {check.peak.toFixed(0)} dBFS
          </p>
          {check.gain !== 0 && check.verdict !== 'silent' && check.verdict !== 'clipping' && (
            <Button
              className="mt-1"
              onClick={() => set({ gain: Math.max(-24, Math.min(24, check.gain)) })}
            >
              Use a gain of {check.gain > 0 ? '+' : ''}
              {check.gain} dB
            </Button>
          )}
        </div>
      )}
      <SliderField
        label="Gain"
        value={gain}
        min={-24}
        max={24}
        step={0.5}
        unit="dB"
        onChange={(value) => set({ gain: value })}
      />
      <p className="text-xs text-ink-2">
        The gain is kept beside the recording and can be changed in Edit.
      </p>
      {deviceGain && (
        <CheckField
          label="Automatic gain"
          value={automatic}
          onChange={(value) => {
            change({ automaticGain: value });
            void choose('voice', source.choice);
          }}
        />
      )}
    </div>
  );
}
