import { counter, emptyProject, SOURCES } from '../edit/fixture';
import { placeFootage } from '../edit/place';
import { changeLook } from '../edit/settings';
import { addSpan } from '../edit/spans';
import { made } from '../callout/testing';
import { newLook, pointerSpan, type PointerLook } from '../pointer/model';
import type { Project } from '../project/model';
import type { Sources } from '../project/sources';
import type { PointerTrack } from '../telemetry/pointer-track';
import { secondsToTicks } from '../time/ticks';
import type { VideoLayer } from './plan';
import { planFrame } from './plan-frame';

const OUTPUT = { width: 1280, height: 720 };
const track: PointerTrack = {
  ...{ format: 'vistum-pointer', version: 2, width: 2560, height: 1440, events: [] },
  reach: { left: 0, top: 0, right: 40, bottom: 60 },
  samples: [
    [0, 400, 300],
    [5000, 400, 300],
    [5200, 2000, 1000],
  ],
};
const sight = {
  ...{ width: 2560, height: 1440, length: 60_000, pointer: null, activities: [], pages: [] },
};

function layersOf(
  looks: readonly PointerLook[],
  more: {
    track?: Partial<PointerTrack>;
    sights?: Sources['sights'];
    change?: (p: Project) => void;
  } = {},
) {
  const project = emptyProject();
  placeFootage(project, SOURCES.footage.screen!, 0, counter());
  addSpan(project, 'callouts', made('cover'));
  const range = { start: 0, end: secondsToTicks(8) };
  addSpan(project, 'pointer', pointerSpan('looks', range, looks));
  more.change?.(project);
  const sources: Sources = {
    ...SOURCES,
    pointers: { screen: { ...track, ...more.track } },
    sights: more.sights ?? { screen: sight },
  };
  return planFrame(project, sources, secondsToTicks(2), OUTPUT).layers;
}
const beneath = (layers: ReturnType<typeof layersOf>) =>
  layers.findIndex((l) => l.kind === 'video' && l.clipId.endsWith(' beneath'));

test('a pointer that is hidden, or drawn at another size, is covered by what lies beneath it', () => {
  for (const look of [newLook('hidden'), newLook('size')]) {
    const layers = layersOf([look]);
    const at = beneath(layers);
    // Right after the recording: covers lie over it.
    expect(layers[at - 1]).toMatchObject({ kind: 'video', footageId: 'screen', speed: 1 });
    expect(layers[at + 1]).toMatchObject({ kind: 'region' });
    const { source, destination, time, speed } = layers[at] as VideoLayer;
    expect(speed).toBe(0);
    expect(time).toBeGreaterThan(secondsToTicks(5));
    // The same place of the recording, as large as the recording is seen.
    expect(source.x).toBeLessThan(400);
    expect(source.x + source.width).toBeGreaterThan(440);
    expect(destination.width / source.width).toBeCloseTo(0.5, 9);
    expect(destination.x / source.x).toBeCloseTo(0.5, 9);
  }
});

test('nothing is painted out that is not wanted gone, not shown, or of which nothing is known', () => {
  const none = (...args: Parameters<typeof layersOf>) =>
    expect(beneath(layersOf(...args))).toBe(-1);
  const hidden = [newLook('hidden')];
  none([newLook('halo')]);
  none(hidden, { sights: {} });
  none(hidden, { track: { inPicture: false } });
  none(hidden, { track: { hidden: [[0, 4000]] } });
  none(hidden, { change: (p) => changeLook(p, 'screen', { opacity: 0.5 }) });
  const busy = { kind: 'video', start: 0, end: 60_000, scrolled: 0 } as const;
  const all = { x: 0, y: 0, width: 2560, height: 1440 };
  none(hidden, { sights: { screen: { ...sight, activities: [{ ...busy, box: all }] } } });
});
