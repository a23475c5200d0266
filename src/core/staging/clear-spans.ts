import { USUAL_LAYOUT } from '../layout/built-in';
import { presenterBoxOf } from '../layout/by-hand';
import { KEEPS_CLEAR } from '../layout/clearing';
import type { Layout } from '../layout/model';
import { CORNERS } from '../layout/placement';
import type { Project } from '../project/model';
import { areaOf } from '../project/query';
import type { Sources } from '../project/sources';
import { frontmost } from '../scene/scene';
import type { Range } from '../time/ranges';
import { secondsToTicks, snapToFrame, ticksToSeconds, type Ticks } from '../time/ticks';

/** A stretch in which the presenter stands in another corner than the usual one. */
export interface ClearSpan extends Range {
  readonly layout: Layout;
  readonly glide: Ticks;
}

/** Going to another corner takes so long, in seconds. */
const GLIDE = 0.7;

/** Stretches of other corners than the usual one. */
export function clearSpans(
  base: Project,
  sources: Sources,
  { path, placed: isPlaced }: { path: readonly number[]; placed: readonly boolean[] },
  whole: Range,
  step: Ticks,
): ClearSpan[] {
  const { canvas, presenter: placed } = base;
  const home = CORNERS.indexOf(placed.corner);
  const found: ClearSpan[] = [];
  for (let i = 0; i < path.length;) {
    let end = i;
    while (end < path.length && path[end] === path[i]) end++;
    const corner = CORNERS[path[i]!]!;
    const at = (n: number) => snapToFrame(whole.start + n * step, canvas.frameRate);
    // Beside a layout of another kind they stand there at once, and not where they do usually.
    const times = {
      start: i > 0 && !isPlaced[i - 1] ? edgeBetween(base, 'end', at(i - 1), at(i)) : at(i),
      end: Math.min(
        whole.end,
        end < path.length && !isPlaced[end]
          ? edgeBetween(base, 'start', at(end - 1), at(end))
          : at(end),
      ),
    };
    if (path[i] !== home && times.end > times.start) {
      const shown = someone(base, sources, times);
      if (shown) {
        const where = { ...placed, corner };
        const area = areaOf(base, shown.footage);
        const presenter = presenterBoxOf(USUAL_LAYOUT, where, area, canvas);
        const layout: Layout = { ...USUAL_LAYOUT, name: KEEPS_CLEAR, presenter };
        found.push({ ...times, layout, glide: secondsToTicks(GLIDE) });
      }
    }
    i = end;
  }
  return found;
}

/** Where a layout begins or ends between two samples; the later one where none does. */
const edgeBetween = (
  { layouts }: Project,
  edge: 'start' | 'end',
  after: Ticks,
  until: Ticks,
): Ticks =>
  layouts.map((span) => span[edge]).find((time) => time > after && time <= until) ?? until;

/** A presenter who is there some time in a stretch; null where nobody is. */
function someone(project: Project, sources: Sources, { start, end }: Range) {
  const looks = Math.max(1, Math.floor(ticksToSeconds(end - start)));
  for (let i = 0; i < looks; i++) {
    const time = Math.round(start + ((end - start) * (i + 0.5)) / looks);
    const shown = frontmost({ project, sources, time }, 'presenter');
    if (shown) return shown;
  }
  return null;
}
