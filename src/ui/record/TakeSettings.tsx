'use client';
import { Button } from '../parts/Button';
import { SelectField, SliderField } from '../parts/fields';
import { useRecord } from './record-store';

const RATES = [15, 20, 24, 25, 30, 50, 60];

/** How a take begins and ends, and how fast it is recorded. */
export function TakeSettings() {
  const settings = useRecord((s) => s.settings);
  const change = useRecord((s) => s.change);
  const flash = useRecord((s) => s.flash);
  const practising = useRecord((s) =>
    Object.values(s.sources).some((v) => v.choice === 'practice'),
  );
  return (
    <div className="grid gap-2">
      <SliderField
        label="Countdown"
        value={settings.countdown}
        min={0}
        max={10}
        step={1}
        unit="s"
        onChange={(countdown) => change({ countdown })}
      />
      <SelectField
        label="Stop after"
        value={String(settings.stopAfter)}
        options={[
          ['0', 'never by itself'],
          ...[15, 30, 60, 120, 300, 600, 1800].map(
            (s) => [String(s), s < 60 ? `${s} s` : `${s / 60} min`] as const,
          ),
        ]}
        onChange={(v) => change({ stopAfter: Number(v) })}
      />
      <SelectField
        label="Frame rate"
        value={String(settings.frameRate)}
        options={RATES.map((r) => [String(r), `${r} fps`] as const)}
        onChange={(v) => change({ frameRate: Number(v) })}
      />
      <SelectField
        label="Drawings stay"
        value={String(settings.hold)}
        options={[
          ['0', 'until erased'],
          ...[2, 4, 8, 15].map((s) => [String(s), `${s} s`] as const),
        ]}
        onChange={(v) => change({ hold: Number(v) })}
      />
      {practising && (
        <Button
          onClick={flash}
          title="A white flash in the pictures and a click in the sound at the same instant"
        >
          Flash and click
        </Button>
      )}
    </div>
  );
}
