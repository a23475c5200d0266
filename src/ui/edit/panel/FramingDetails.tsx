'use client';
import { keepInside } from '@/core/framing/path';
import { areaOf } from '@/core/project/query';
import { magnification, wholeView } from '@/core/scale/sharpness';
import { secondsToTicks, ticksToSeconds } from '@/core/time/ticks';
import { CheckField, SliderField } from '../../parts/fields';
import { useFramingLimit } from '../use-framing-limit';
import { useEditor } from '../store';
import { FramingReason } from './FramingReason';
import { Heading } from './Heading';
import { SpanTimes } from './SpanTimes';

export function FramingDetails({ id }: { id: string }) {
  const framing = useEditor((s) => s.project.framings.find((f) => f.id === id));
  const canvas = useEditor((s) => s.project.canvas);
  const area = useEditor((s) =>
    framing && s.sources.footage[framing.footageId]
      ? areaOf(s.project, s.sources.footage[framing.footageId]!)
      : null,
  );
  const limit = useFramingLimit(framing);
  const apply = useEditor((s) => s.apply);
  if (!framing || !area) return null;
  const whole = wholeView(area, canvas);
  const now = magnification(framing.rect, area, canvas);
  const zoom = (value: number) => {
    const width = whole.width / value;
    const height = (width * whole.height) / whole.width;
    const { rect } = framing;
    const next = keepInside(
      {
        x: rect.x + (rect.width - width) / 2,
        y: rect.y + (rect.height - height) / 2,
        width,
        height,
      },
      whole,
    );
    apply('change-framing', { id, change: { rect: { ...next }, pinned: true } }, true);
  };
  const seconds = (ticks: number) => Number(ticksToSeconds(ticks).toFixed(1));
  return (
    <div className="grid gap-2">
      <Heading title="Framing" />
      <SliderField
        label="Magnification"
        value={now}
        min={1}
        max={Math.max(4, limit)}
        step={0.01}
        unit="×"
        show={(v) => v.toFixed(2)}
        onChange={zoom}
      />
      <p className={`text-xs ${now > limit * 1.01 ? 'font-semibold text-caution' : 'text-ink-2'}`}>
        The sharp limit of this recording is {limit.toFixed(2)}× as it is shown here.
        {now > limit * 1.01 && ' Beyond it text turns soft.'}
      </p>
      <SliderField
        label="Ramp in"
        value={seconds(framing.rampIn)}
        min={0}
        max={4}
        step={0.1}
        unit="s"
        onChange={(v) =>
          apply('change-framing', { id, change: { rampIn: secondsToTicks(v) } }, true)
        }
      />
      <SliderField
        label="Ramp out"
        value={seconds(framing.rampOut)}
        min={0}
        max={4}
        step={0.1}
        unit="s"
        onChange={(v) =>
          apply('change-framing', { id, change: { rampOut: secondsToTicks(v) } }, true)
        }
      />
      <CheckField
        label="Pinned"
        value={framing.pinned}
        onChange={(pinned) => apply('change-framing', { id, change: { pinned } })}
      />
      <p className="text-xs text-ink-2">
        Pinned framings stay as they are when you plan again. Drag the rectangle on the Picture to
        move it.
      </p>
      <FramingReason framing={framing} />
      <SpanTimes span={framing} name="framing" />
    </div>
  );
}
