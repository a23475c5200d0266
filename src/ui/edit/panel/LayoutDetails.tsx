'use client';
import { builtInOf, LAYOUT_KINDS, LAYOUTS } from '@/core/layout/built-in';
import { isClearing } from '@/core/layout/clearing';
import { Layout, type Box } from '@/core/layout/model';
import { projectDuration } from '@/core/project/query';
import { secondsToTicks, ticksToSeconds } from '@/core/time/ticks';
import { Button } from '../../parts/Button';
import { SelectField, SliderField } from '../../parts/fields';
import { SavedPresets } from '../../presets/SavedPresets';
import { LayoutSketch } from '../LayoutSketch';
import { useEditor, useEditorStore } from '../store';
import { Heading } from './Heading';
import { KeepClear } from './KeepClear';
import { BackgroundFields, PresenterFields, ScreenFields } from './LayoutFields';
import { SpanTimes } from './SpanTimes';
import { TextOf } from './TextOf';

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
        <TextOf
          id={id}
          label="Name"
          value={layout.name}
          most={Layout.properties.name.maxLength}
          onDone={(name) => name.trim() && set({ ...layout, name: name.trim() })}
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
          sketch={(value) => <LayoutSketch layout={value} />}
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
