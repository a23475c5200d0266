import { anchorFootage } from '../callout/anchor';
import { mappedKeyframes } from '../callout/keyframes';
import type { Project } from '../project/model';
import type { Range } from '../time/ranges';
import type { Ticks } from '../time/ticks';
import { fitRamps } from './spans';

/** Where an instant of the timeline goes. Must not turn the order of two instants round. */
export type TimeMap = (time: Ticks) => Ticks;

/**
 * Moves all that stands beside the clips: framings, layouts, pointer looks, callouts, markers,
 * steps. A span of which nothing is left goes. Of steps that fall on one instant the last keeps its
 * place, the others are only planned again; of markers, one stays.
 *
 * @param end where the end of a span goes; that differs from a start only where time is put in
 */
export function mapBeside(project: Project, start: TimeMap, end: TimeMap = start): void {
  const spans = <S extends Range>(list: S[]): S[] =>
    list.flatMap((s) => {
      const range = { start: start(s.start), end: end(s.end) };
      return range.end > range.start ? [{ ...s, ...range }] : [];
    });
  project.framings = spans(project.framings);
  project.framings.forEach(fitRamps);
  project.layouts = spans(project.layouts);
  project.pointer = spans(project.pointer);
  project.callouts = project.callouts.flatMap((callout) =>
    spans([callout]).map((moved) => ({
      ...moved,
      keyframes: mappedKeyframes(callout.keyframes, callout.start, moved.start, start),
    })),
  );
  const latest = new Map<Ticks, Ticks>();
  for (const { start: at } of project.steps)
    if (at !== null) latest.set(start(at), Math.max(at, latest.get(start(at)) ?? 0));
  project.steps = project.steps.map((step) =>
    step.start === null
      ? step
      : { ...step, start: latest.get(start(step.start)) === step.start ? start(step.start) : null },
  );
}

/** Moves markers; those for which the map says null go. */
export function mapMarkers(project: Project, map: (time: Ticks) => Ticks | null): void {
  const taken = new Set<Ticks>();
  project.markers = project.markers.flatMap((marker) => {
    const time = map(marker.time);
    if (time === null || taken.has(time)) return [];
    taken.add(time);
    return [{ ...marker, time }];
  });
}

/**
 * Moves only what is anchored in certain footage: its callouts and framings. Framings of other
 * footage give way where they would lie over each other.
 */
export function mapOfFootage(project: Project, footage: ReadonlySet<string>, map: TimeMap): void {
  const within = [
    ...project.framings.filter((f) => footage.has(f.footageId)),
    ...project.callouts.filter(({ anchor }) => footage.has(anchorFootage(anchor) ?? '')),
  ];
  for (const span of within) {
    const [from, end] = [span.start, map(span.end)];
    span.start = map(span.start);
    if ('keyframes' in span)
      span.keyframes = mappedKeyframes(span.keyframes, from, span.start, map);
    span.end = Math.max(end, span.start + 1);
  }
  let last = 0;
  for (const framing of project.framings.sort((a, b) => a.start - b.start)) {
    framing.start = Math.max(framing.start, last);
    framing.end = Math.max(framing.end, framing.start + 1);
    last = framing.end;
    fitRamps(framing);
  }
  project.callouts.sort((a, b) => a.start - b.start);
}
