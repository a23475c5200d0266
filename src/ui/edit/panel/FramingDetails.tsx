'use client';
import { magnified } from '@/core/framing/by-hand';
import { MOST_TURN } from '@/core/project/parts/framing';
import type { Framing } from '@/core/project/model';
import { areaOf } from '@/core/project/query';
import { magnification, wholeView } from '@/core/scale/sharpness';
import { secondsToTicks, ticksToSeconds } from '@/core/time/ticks';
import { shownKeys } from '../../keys/shown';
import { Button } from '../../parts/Button';
import { useCommands } from '../commands/use-commands';
import { CheckField, SliderField } from '../../parts/fields';
import { useFramingLimit } from '../use-framing-limit';
import { useTurning } from '../use-turning';
import { useEditor } from '../store';
import { FramingReason } from './FramingReason';
import { Heading } from './Heading';
import { SpanTimes } from './SpanTimes';

/** A slow push begins by going closer by this factor. */
const PUSH = 1.15;

export function FramingDetails({ id }: { id: string }) {
  const framing = useEditor((s) => s.project.framings.find((f) => f.id === id));
  const canvas = useEditor((s) => s.project.canvas);
  const area = useEditor((s) =>
    framing && s.sources.footage[framing.footageId]
      ? areaOf(s.project, s.sources.footage[framing.footageId]!)
      : null,
  );
  const { limit, crisp } = useFramingLimit(framing);
  const apply = useEditor((s) => s.apply);
  const turnTo = useTurning(id);
  if (!framing || !area) return null;
  const whole = wholeView(area, canvas);
  const now = magnification(framing.rect, area, canvas);
  const set = (change: Partial<Framing>, merge = true) =>
    apply('change-framing', { id, change }, merge);
  const zoom = (value: number) =>
    set({ rect: { ...magnified(framing.rect, whole, value) }, pinned: true });
  /** It ends closer; where that would be beyond the sharp limit it begins further away instead. */
  const push = (on: boolean) => {
    const { rect } = framing;
    const closer = now * PUSH <= limit || now / PUSH < 1;
    const views = closer
      ? { rect, endRect: magnified(rect, whole, now * PUSH) }
      : { rect: magnified(rect, whole, now / PUSH), endRect: rect };
    set({ ...(on ? views : { endRect: null }), pinned: true }, false);
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
      <SliderField
        label="Turn"
        value={framing.turn ?? 0}
        min={-MOST_TURN}
        max={MOST_TURN}
        step={0.5}
        unit="°"
        onChange={turnTo}
      />
      <p className={`text-xs ${now > crisp * 1.01 ? 'font-semibold text-caution' : 'text-ink-2'}`}>
        The sharp limit of this recording is {limit.toFixed(2)}× as it is shown here.
        {now > limit * 1.01 && crisp > limit && ` Text is rebuilt up to ${crisp.toFixed(2)}×.`}
        {now > crisp * 1.01 && ' Beyond it text turns soft.'}
      </p>
      <div className="@container">
        <div className="grid gap-2 @md:grid-cols-2">
          <SliderField
            label="Ramp in"
            value={seconds(framing.rampIn)}
            min={0}
            max={4}
            step={0.1}
            unit="s"
            onChange={(v) => set({ rampIn: secondsToTicks(v) })}
          />
          <SliderField
            label="Ramp out"
            value={seconds(framing.rampOut)}
            min={0}
            max={4}
            step={0.1}
            unit="s"
            onChange={(v) => set({ rampOut: secondsToTicks(v) })}
          />
          <CheckField
            label="Pinned"
            value={framing.pinned}
            onChange={(pinned) => set({ pinned }, false)}
          />
          <CheckField label="Slow push" value={framing.endRect !== null} onChange={push} />
        </div>
      </div>
      {framing.endRect && (
        <SliderField
          label="Ends at"
          value={magnification(framing.endRect, area, canvas)}
          min={1}
          max={Math.max(4, limit)}
          step={0.01}
          unit="×"
          show={(v) => v.toFixed(2)}
          onChange={(v) =>
            set({ endRect: { ...magnified(framing.endRect!, whole, v) }, pinned: true })
          }
        />
      )}
      <FramingReason framing={framing} />
      <Ways />
      <p className="text-xs text-ink-2">
        Pinned framings stay as they are when you plan again. Drag the rectangle on the Picture, or
        the line in the graph.
      </p>
      <SpanTimes span={framing} name="framing" />
    </div>
  );
}

const WAYS = [
  ['framing-draw', 'Draw on the Picture'],
  ['framing-align', 'Fit to the panel or text'],
  ['framing-before', 'As the one before'],
  ['framing-whole', 'Whole screen from the playhead on'],
] as const;

/** Other ways to set the view. */
function Ways() {
  const commands = useCommands(null);
  return (
    <div className="flex flex-wrap gap-1">
      {WAYS.map(([id, label]) => {
        const command = commands.get(id);
        return (
          <Button
            key={id}
            title={command?.keys.map(shownKeys).join(' ')}
            className="text-xs"
            onClick={() => command?.run()}
          >
            {label}
          </Button>
        );
      })}
    </div>
  );
}
