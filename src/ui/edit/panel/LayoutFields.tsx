'use client';
import { withPresenterBox, withScreenBox } from '@/core/layout/by-hand';
import { USUAL_LAYOUT } from '@/core/layout/built-in';
import { WHOLE_BOX, type Box, type Layout, type PresenterBox } from '@/core/layout/model';
import { PresenterPlacement } from '@/core/layout/placement';
import { presenterBoxAt } from '@/core/scene/scene';
import { same } from '@/core/schema/same';
import { Button } from '../../parts/Button';
import { CheckField, SliderField } from '../../parts/fields';
import { RectFields } from '../../parts/RectFields';
import { SettingField } from '../../parts/setting-fields';
import { GroundFields } from './GroundFields';
import { OwnShapeFields } from './OwnShapeFields';
import { RingColors } from './RingColors';
import { playheadOf, useEditor, useEditorStore } from '../store';

const {
  shape: SHAPE,
  feather: FEATHER,
  ring: RING,
  shadow: SHADOW,
  reflection: REFLECTION,
} = PresenterPlacement.properties;

interface Fields {
  readonly layout: Layout;
  readonly onLayout: (layout: Layout, run?: boolean) => void;
}

/** A box in frame pixels. */
function BoxFields({ box, onBox }: { box: Box; onBox: (box: Box) => void }) {
  const { width, height } = useEditor((s) => s.project.canvas);
  const pixels = {
    ...{ x: Math.round(box.x * width), y: Math.round(box.y * height) },
    ...{ width: Math.round(box.width * width), height: Math.round(box.height * height) },
  };
  return (
    <RectFields
      rect={pixels}
      onSide={(side, value) => {
        const whole = side === 'x' || side === 'width' ? width : height;
        const next = { ...box, [side]: Math.min(1, Math.max(0, value / whole)) };
        onBox({
          ...next,
          width: Math.max(0.02, Math.min(next.width, 1 - next.x)),
          height: Math.max(0.02, Math.min(next.height, 1 - next.y)),
        });
      }}
    />
  );
}

/** Where the screen is in a layout, its corners and its edge. */
export function ScreenFields({ layout, onLayout }: Fields) {
  const { screen } = layout;
  const change = ({
    ring,
    ...what
  }: {
    rounding?: number;
    shadow?: number;
    ring?: PresenterBox['ring'];
  }) => {
    const { ring: before, ...rest } = screen!;
    const edge = ring === undefined ? (before ?? null) : ring;
    const next = { ...rest, ...what, ...(edge ? { ring: edge } : {}) };
    onLayout({ ...withScreenBox(layout, rest.box), screen: next }, true);
  };
  return (
    <fieldset className="grid gap-2 border-t border-line pt-2">
      <legend className="font-semibold">Screen (px)</legend>
      <CheckField
        label="Shown"
        value={screen !== null}
        onChange={(on) => onLayout(withScreenBox(layout, on ? WHOLE_BOX : null))}
      />
      {screen && (
        <BoxFields box={screen.box} onBox={(box) => onLayout(withScreenBox(layout, box), true)} />
      )}
      {screen && !same(screen.box, WHOLE_BOX) && (
        <>
          <SliderField
            label="Corners"
            value={Number(((screen.rounding ?? 0) * 100).toFixed(1))}
            min={0}
            max={50}
            step={0.5}
            unit="%"
            usual={0}
            onChange={(v) => change({ rounding: v / 100 })}
          />
          <RingFields ring={screen.ring ?? null} onRing={(ring) => change({ ring })} />
          <SettingField
            schema={SHADOW}
            value={screen.shadow ?? 0}
            onChange={(shadow) => change({ shadow })}
          />
        </>
      )}
    </fieldset>
  );
}

/** The coloured edge of a screen or presenter; no width is none. */
function RingFields({
  ring,
  onRing,
}: {
  ring: PresenterBox['ring'];
  onRing: (ring: PresenterBox['ring']) => void;
}) {
  return (
    <>
      <SettingField
        schema={RING.properties.width}
        value={ring?.width ?? 0}
        onChange={(width) =>
          onRing(width ? { color: RING.properties.color.default, ...ring, width } : null)
        }
      />
      {ring && <RingColors ring={ring} onRing={(what) => onRing({ ...ring, ...what })} />}
    </>
  );
}

/** Where and how the presenter stands in a layout. */
export function PresenterFields({ layout, onLayout }: Fields) {
  const store = useEditorStore();
  const select = useEditor((s) => s.select);
  const { presenter } = layout;
  const box = presenter && presenter !== 'placed' ? presenter : null;
  const change = (what: Partial<PresenterBox>, run = true) =>
    box && onLayout(withPresenterBox(layout, { ...box, ...what }), run);
  const own = () => {
    const state = store.getState();
    const placed = presenterBoxAt({ ...state, time: playheadOf(state) }, USUAL_LAYOUT);
    if (placed) onLayout(withPresenterBox(layout, placed));
  };
  return (
    <fieldset className="grid gap-2 border-t border-line pt-2">
      <legend className="font-semibold">Presenter (px)</legend>
      <CheckField
        label="Shown"
        value={presenter !== null}
        onChange={(on) => onLayout({ ...layout, presenter: on ? 'placed' : null })}
      />
      {presenter === 'placed' && (
        <span className="flex flex-wrap gap-1">
          <Button onClick={own}>A place of their own here</Button>
          <Button onClick={() => select({ kind: 'presenter' })}>Presenter settings</Button>
        </span>
      )}
      {box && (
        <>
          <BoxFields box={box.box} onBox={(next) => change({ box: next })} />
          <CheckField
            label="Nothing behind them, if keyed"
            value={box.clear ?? false}
            onChange={(clear) => change({ clear }, false)}
          />
          <SettingField
            schema={SHAPE}
            value={box.shape}
            onChange={(shape, run) => change({ shape }, run)}
          />
          {box.shape === 'own' && (
            <OwnShapeFields path={box.path} onPath={(path) => change({ path })} />
          )}
          <SettingField
            schema={FEATHER}
            value={box.feather}
            onChange={(feather) => change({ feather })}
          />
          <SliderField
            label="Face size"
            value={1 / (box.crop ?? 1)}
            min={1}
            max={4}
            step={0.05}
            unit="×"
            usual={1}
            show={(v) => v.toFixed(2)}
            onChange={(v) => change({ crop: Number(Math.max(0.2, 1 / v).toFixed(4)) })}
          />
          <RingFields ring={box.ring} onRing={(ring) => change({ ring })} />
          <SettingField
            schema={SHADOW}
            value={box.shadow ?? 0}
            onChange={(shadow) => change({ shadow })}
          />
          <SettingField
            schema={REFLECTION}
            value={box.reflection ?? 0}
            onChange={(reflection) => change({ reflection })}
          />
        </>
      )}
    </fieldset>
  );
}

/** What is seen where neither is; the project's own, unless the layout has one. */
export function BackgroundFields({ layout, onLayout }: Fields) {
  const project = useEditor((s) => s.project.canvas.background);
  return (
    <fieldset className="grid gap-2 border-t border-line pt-2">
      <legend className="font-semibold">Background</legend>
      <CheckField
        label="Another than the project’s"
        value={layout.background !== null}
        onChange={(on) => onLayout({ ...layout, background: on ? project : null })}
      />
      {layout.background !== null && (
        <GroundFields
          label="Filled with"
          value={layout.background}
          onChange={(background, run) => onLayout({ ...layout, background }, run)}
        />
      )}
    </fieldset>
  );
}
