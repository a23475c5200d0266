import { anchorFootage } from '../callout/anchor';
import type { Fault } from '../schema/check';
import { clipEnd, sourceEnd } from './clip-time';
import type { Project } from './model';
import { footageOf, type Sources } from './sources';
import { mayOverlap, SPAN_LISTS } from './span-lists';

/** A changed speed may round the end of what is used up by a tick. */
const ROUNDING = 1;

/**
 * What is against the rules that a schema can't say: order, overlap, references, the limits of the
 * footage.
 */
export function* structuralFaults(project: Project, sources: Sources): Generator<Fault> {
  const ids = new Set<string>();
  const claim = function* (id: string, path: string): Generator<Fault> {
    if (ids.has(id)) yield { path: `${path}/id`, message: `uses the id "${id}" a second time` };
    ids.add(id);
  };
  for (const [g, group] of project.groups.entries()) yield* claim(group.id, `/groups/${g}`);
  const groups = new Set(project.groups.map((g) => g.id));
  for (const [l, lane] of project.lanes.entries()) {
    yield* claim(lane.id, `/lanes/${l}`);
    let end = 0;
    for (const [c, clip] of lane.clips.entries()) {
      const path = `/lanes/${l}/clips/${c}`;
      yield* claim(clip.id, path);
      if (clip.start < end)
        yield { path: `${path}/start`, message: 'overlaps the clip before it, or is out of order' };
      end = clipEnd(clip);
      if (clip.group && !groups.has(clip.group))
        yield { path: `${path}/group`, message: 'names a group that is not there' };
      const footage = footageOf(sources, clip.footageId);
      if (!footage)
        yield {
          path: `${path}/footageId`,
          message: `names footage that the project does not have ("${clip.footageId}")`,
        };
      else if (footage.kind !== 'image' && sourceEnd(clip) > footage.duration + ROUNDING)
        yield { path: `${path}/duration`, message: 'goes beyond the end of its footage' };
    }
  }
  for (const name of SPAN_LISTS) {
    let end = 0;
    for (const [i, span] of project[name].entries()) {
      const path = `/${name}/${i}`;
      yield* claim(span.id, path);
      if (span.end <= span.start)
        yield { path: `${path}/end`, message: 'does not lie after its start' };
      if (!mayOverlap(name) && span.start < end)
        yield { path: `${path}/start`, message: 'overlaps the one before it, or is out of order' };
      end = span.end;
      const footageId =
        'anchor' in span ? anchorFootage(span.anchor) : 'footageId' in span ? span.footageId : null;
      if (footageId !== null && !footageOf(sources, footageId))
        yield {
          path: 'anchor' in span ? `${path}/anchor/footageId` : `${path}/footageId`,
          message: `names footage that the project does not have ("${footageId}")`,
        };
    }
  }
  for (const [i, callout] of project.callouts.entries()) {
    const path = `/callouts/${i}`;
    if (callout.keyframes.some(({ at }, k) => at <= (callout.keyframes[k - 1]?.at ?? -Infinity)))
      yield { path: `${path}/keyframes`, message: 'are not in the order of their times' };
    if (callout.kind === 'picture' && !footageOf(sources, callout.footageId))
      yield {
        path: `${path}/footageId`,
        message: `names a picture that the project does not have ("${callout.footageId}")`,
      };
  }
  for (const [i, framing] of project.framings.entries())
    if (framing.rampIn + framing.rampOut > framing.end - framing.start)
      yield {
        path: `/framings/${i}/rampIn`,
        message: 'and the ramp out are longer than the framing',
      };
  const begun = new Set<number>();
  for (const [i, step] of project.steps.entries()) {
    yield* claim(step.id, `/steps/${i}`);
    if (step.start === null) continue;
    if (begun.has(step.start))
      yield { path: `/steps/${i}/start`, message: 'is where another step begins' };
    begun.add(step.start);
  }
  let passed = 0;
  for (const [i, marker] of project.markers.entries()) {
    yield* claim(marker.id, `/markers/${i}`);
    if (marker.time < passed)
      yield { path: `/markers/${i}/time`, message: 'lies before the marker before it' };
    passed = marker.time;
  }
}

/**
 * Whether a document keeps the rules that a schema can't say, as far as its footage is known: a tab
 * does not know what is still being prepared.
 */
export function isSound(project: Project, sources: Sources): boolean {
  for (const { path } of structuralFaults(project, sources))
    if (!path.endsWith('/footageId')) return false;
  return true;
}
