'use client';
import { Theme } from '@/core/callout/theme';
import { Canvas } from '@/core/project/model';
import { framesPerSecond } from '@/core/time/ticks';
import { Button } from '../../parts/Button';
import { SelectField } from '../../parts/fields';
import { SettingFields } from '../../parts/setting-fields';
import { TARGETS } from '@/core/project/targets';
import { USUAL_RATES } from '@/core/time/rates';
import { useEditor } from '../store';
import { GroundFields } from './GroundFields';
import { Heading } from './Heading';

/** Size and rate of the picture; nothing here changes by itself. */
export function ProjectDetails() {
  const canvas = useEditor((s) => s.project.canvas);
  const theme = useEditor((s) => s.project.theme);
  const screen = useEditor(
    (s) =>
      s.footage.find((f) => f.role === 'screen' && f.status === 'ready' && f.facts?.hasVideo)
        ?.facts,
  );
  const apply = useEditor((s) => s.apply);
  const now = `${canvas.width}x${canvas.height}`;
  const sizes: [string, string][] = TARGETS.filter(
    (t, i) => TARGETS.findIndex((o) => o.width === t.width && o.height === t.height) === i,
  ).map((t) => [`${t.width}x${t.height}`, `${t.name} (${t.width}×${t.height} px)`]);
  if (!sizes.some(([key]) => key === now))
    sizes.unshift([now, `${canvas.width}×${canvas.height} px`]);
  const rate =
    USUAL_RATES.find(
      ([, r]) => r.num * canvas.frameRate.den === canvas.frameRate.num * r.den,
    )?.[0] ?? String(framesPerSecond(canvas.frameRate));
  const setSize = (key: string) => {
    const [width, height] = key.split('x').map(Number) as [number, number];
    apply('change-canvas', { change: { width, height } });
  };
  const even = (n: number) => n - (n % 2);
  const fits =
    screen && (even(screen.width) !== canvas.width || even(screen.height) !== canvas.height);
  return (
    <div className="grid gap-2">
      <Heading title="Project" />
      <p className="text-xs text-ink-2">
        Select something on the timeline to see its details here.
      </p>
      <SelectField label="Picture" value={now} options={sizes} onChange={setSize} />
      <SelectField
        label="Frame rate"
        value={rate}
        options={USUAL_RATES.map(([label]) => [label, `${label} fps`] as const)}
        onChange={(label) =>
          apply('change-canvas', {
            change: { frameRate: USUAL_RATES.find(([l]) => l === label)![1] },
          })
        }
      />
      <GroundFields
        label="Background"
        value={canvas.background}
        onChange={(background, run) => apply('change-canvas', { change: { background } }, run)}
      />
      <SettingFields
        schema={Canvas}
        value={canvas}
        only={['crisp']}
        onChange={(change) => apply('change-canvas', { change })}
      />
      <fieldset className="grid grid-cols-1 gap-2 border-t border-line pt-2">
        <legend className="font-semibold">Theme of callouts</legend>
        <p className="text-xs text-ink-2">
          For new ones, and for all that still look as it says; what you set on one stays.
        </p>
        <SettingFields
          schema={Theme}
          value={theme}
          onChange={(change, run) => apply('change-theme', { change }, run)}
        />
      </fieldset>
      {fits && (
        <div className="border border-line p-2">
          <p className="mb-2 text-xs">
            Your screen recording is {screen.width}×{screen.height} px. At that size nothing is
            scaled; at a smaller one there is room for sharp framings.
          </p>
          <Button onClick={() => setSize(`${even(screen.width)}x${even(screen.height)}`)}>
            Use {even(screen.width)}×{even(screen.height)} px
          </Button>
        </div>
      )}
    </div>
  );
}
