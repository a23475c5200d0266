'use client';
import { withPresenterBox, withScreenBox } from '@/core/layout/by-hand';
import { builtInOf, LAYOUT_KINDS, LAYOUTS, USUAL_LAYOUT } from '@/core/layout/built-in';
import { isClearing } from '@/core/layout/clearing';
import { WHOLE_BOX, type Box, type Layout, type PresenterBox } from '@/core/layout/model';
import { PresenterPlacement } from '@/core/layout/placement';
import { projectDuration } from '@/core/project/query';
import { same } from '@/core/schema/same';
import { presenterBoxAt } from '@/core/scene/scene';
import { secondsToTicks, ticksToSeconds } from '@/core/time/ticks';
import { Button } from '../../parts/Button';
import { CheckField, ColorField, SelectField, SliderField, TextField } from '../../parts/fields';
import { RectFields } from '../../parts/RectFields';
import { SettingField } from '../../parts/setting-fields';
import { SavedPresets } from '../../presets/SavedPresets';
import { playheadOf, useEditor, useEditorStore } from '../store';
import { Heading } from './Heading';
import { KeepClear } from './KeepClear';
import { SpanTimes } from './SpanTimes';

const { shape: SHAPE, feather: FEATHER, ring: RING } = PresenterPlacement.properties;

/** How the layout before goes over to this one. */
const WAYS = [
  ['cut', 'with a cut'],
  ['glide', 'with a glide'],
  ['dissolve', 'with a dissolve'],
] as const;
/** How long it takes to begin with. */
const USUAL_SECONDS = 0.6;

/** How screen and presenter share the picture for a while. */
export function LayoutDetails({ id }: { id: string }) {
  const store = useEditorStore();
  const span = useEditor((s) => s.project.layouts.find((l) => l.id === id));
  const apply = useEditor((s) => s.apply);
  const select = useEditor((s) => s.select);
  if (!span) return null;
  const { layout } = span;
  const kind = builtInOf(layout);
  const set = (next: Layout, run = false) =>
    apply('change-layout', { id, change: { layout: structuredClone(next) } }, run);
  /** The same layout for another stretch, which then is the selected one. */
  const extend = (range: { readonly start: number; readonly end: number }) => {
    const way = {
      ...(span.glide ? { glide: span.glide } : {}),
      ...(span.dissolves ? { dissolves: true } : {}),
    };
    if (!apply('set-layout', { ...range, layout: structuredClone(layout), ...way })) return;
    const made = store.getState().project.layouts.find((l) => l.start === range.start);
    if (made) select({ kind: 'layouts', id: made.id });
  };
  const end = () => projectDuration(store.getState().project);
  return (
    <div className="grid grid-cols-1 gap-2">
      <Heading title="Layout" />
      <SelectField
        label="Shows"
        value={kind ?? 'own'}
        options={[
          ...LAYOUT_KINDS.map((k) => [k, LAYOUTS[k].name] as const),
          ...(kind ? [] : [['own', layout.name] as const]),
        ]}
        onChange={(chosen) => chosen !== 'own' && set(LAYOUTS[chosen])}
      />
      {!kind && (
        <TextField
          label="Name"
          value={layout.name}
          onDone={(name) => name.trim() && set({ ...layout, name: name.trim().slice(0, 200) })}
        />
      )}
      <SelectField
        label="Goes over"
        value={!span.glide ? 'cut' : span.dissolves ? 'dissolve' : 'glide'}
        options={WAYS}
        onChange={(way) =>
          apply('change-layout', {
            id,
            change: {
              dissolves: way === 'dissolve',
              glide: way === 'cut' ? 0 : (span.glide ?? 0) || secondsToTicks(USUAL_SECONDS),
            },
          })
        }
      />
      <SliderField
        label="Takes"
        value={Number(ticksToSeconds(span.glide ?? 0).toFixed(1))}
        min={0}
        max={3}
        step={0.1}
        unit="s"
        usual={0}
        onChange={(v) => apply('change-layout', { id, change: { glide: secondsToTicks(v) } }, true)}
      />
      <p className="text-xs text-ink-2">
        {!span.glide
          ? 'It begins and ends with a cut.'
          : span.dissolves
            ? 'It is blended over the layout before, and the usual one over it after.'
            : 'Screen and presenter glide to it from the layout before, and back after it.'}
      </p>
      <p className="text-xs text-ink-2">
        Drag the boxes on the Picture, or their corners. Edges rest on thirds, safe lines and each
        other; Alt leaves them free.
      </p>
      {isClearing(span, span) && <KeepClear />}
      <ScreenFields layout={layout} onLayout={set} />
      <PresenterFields layout={layout} onLayout={set} />
      <BackgroundFields layout={layout} onLayout={set} />
      <fieldset className="flex flex-wrap gap-1 border-t border-line pt-2">
        <legend className="font-semibold">The same layout</legend>
        <Button onClick={() => extend({ start: span.start, end: end() })}>
          From here to the end
        </Button>
        <Button onClick={() => extend({ start: 0, end: end() })}>In the whole project</Button>
      </fieldset>
      <SpanTimes span={span} name="layout" />
      <fieldset className="grid grid-cols-1 gap-2 border-t border-line pt-2">
        <legend className="font-semibold">Layout presets</legend>
        <SavedPresets
          kind="layout"
          title="Layout presets"
          one="layout"
          now={layout}
          describe={describe}
          onUse={({ name, value }) => set({ ...value, name })}
        />
      </fieldset>
    </div>
  );
}

/** What a layout shows, in a few words. */
function describe({ screen, presenter }: Layout): string {
  const share = ({ width, height }: Box) => `${Math.round(width * height * 100)} %`;
  return [
    screen ? `screen ${share(screen.box)}` : 'no screen',
    presenter === 'placed'
      ? 'presenter in a corner'
      : presenter
        ? `presenter ${share(presenter.box)}`
        : 'no presenter',
  ].join(', ');
}

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

function ScreenFields({ layout, onLayout }: Fields) {
  const { screen } = layout;
  const change = ({ ring, ...what }: { rounding?: number; ring?: PresenterBox['ring'] }) => {
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
          onRing(width ? { width, color: ring?.color ?? RING.properties.color.default } : null)
        }
      />
      {ring && (
        <SettingField
          schema={RING.properties.color}
          value={ring.color}
          onChange={(color) => onRing({ ...ring, color })}
        />
      )}
    </>
  );
}

function PresenterFields({ layout, onLayout }: Fields) {
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
        </>
      )}
    </fieldset>
  );
}

/** The colour where neither is; the project's own, unless the layout has one. */
function BackgroundFields({ layout, onLayout }: Fields) {
  const project = useEditor((s) => s.project.canvas.background);
  return (
    <fieldset className="grid gap-2 border-t border-line pt-2">
      <legend className="font-semibold">Background</legend>
      <CheckField
        label="Another colour than the project’s"
        value={layout.background !== null}
        onChange={(on) => onLayout({ ...layout, background: on ? project : null })}
      />
      {layout.background !== null && (
        <ColorField
          label="Colour"
          value={layout.background}
          onChange={(background) => onLayout({ ...layout, background }, true)}
        />
      )}
    </fieldset>
  );
}
