import { Type, type Static } from '@sinclair/typebox';
import { kindOf } from '../callout/kinds';
import { Clip, Framing, Layout, PointerSpan, type Callout, type Project } from '../project/model';
import { findClip, isPictureLane } from '../project/query';
import { setClipGain, muteClips } from './clips';
import { EditError } from './error';
import { setFades } from './levels';
import { unlockedClip } from './lookup';
import { canFollow, setSpeed } from './retime';
import { changeSpan, findSpan } from './spans';
import type { EditContext } from './registry/kind';

const { gain, muted, fadeIn, fadeOut } = Clip.properties;
const { rampIn, rampOut, pinned } = Framing.properties;

/** What several things can be given together, by what they are; each takes what it has. */
export const SharedChange = Type.Partial(
  Type.Object({
    clips: Type.Partial(
      Type.Object({
        ...{ gain, muted, fadeIn, fadeOut },
        speed: Type.Number({ minimum: 0.1, maximum: 16 }),
      }),
    ),
    framings: Type.Partial(Type.Object({ rampIn, rampOut, pinned })),
    layouts: Type.Partial(Type.Object({ layout: Layout })),
    pointer: Type.Partial(
      Type.Object({
        fadeIn: PointerSpan.properties.fadeIn,
        fadeOut: PointerSpan.properties.fadeOut,
      }),
    ),
    callouts: Type.Record(Type.String(), Type.Unknown(), {
      description: 'Settings of callouts; each takes those that its kind has.',
    }),
  }),
);
export type SharedChange = Static<typeof SharedChange>;

/**
 * Changes several things at once. A setting that a thing does not have is left out for it: the
 * level of a picture, the line of a text.
 *
 * @throws EditError when nothing of what is named is there any more, or a lane is locked
 */
export function changeSeveral(
  project: Project,
  ids: readonly string[],
  change: SharedChange,
  context: Pick<EditContext, 'frame' | 'newId'>,
): void {
  let found = 0;
  // From the last to the first: what moves when a clip gets longer was changed by then.
  const clips = ids.flatMap((id) => findClip(project, id)?.clip ?? []);
  for (const { id } of clips.sort((a, b) => b.start - a.start)) {
    found++;
    if (change.clips) changeClip(project, id, change.clips, context);
  }
  for (const id of ids) {
    const span = findSpan(project, id);
    if (!span) continue;
    found++;
    const { list } = span;
    const wanted = list === 'callouts' ? fitting(span.span as Callout, change) : change[list];
    if (wanted) changeSpan(project, list, id, wanted as object);
  }
  if (!found) throw new EditError('They are no longer there.');
}

function changeClip(
  project: Project,
  id: string,
  change: NonNullable<SharedChange['clips']>,
  { frame, newId }: Pick<EditContext, 'frame' | 'newId'>,
): void {
  const { clip, lane } = unlockedClip(project, id);
  if (!isPictureLane(lane)) {
    if (change.gain !== undefined) setClipGain(project, id, change.gain);
    if (change.muted !== undefined) muteClips(project, [id], change.muted);
    if (change.fadeIn !== undefined || change.fadeOut !== undefined)
      setFades(project, id, change.fadeIn ?? clip.fadeIn, change.fadeOut ?? clip.fadeOut);
  }
  const { speed } = change;
  // A frozen frame has none, and what is linked went along.
  if (speed === undefined || clip.speed === 0 || clip.speed === speed) return;
  setSpeed(project, id, speed, canFollow(project, id, speed) ? 'move' : 'stay', frame, newId);
}

/** The settings of a change that a callout's kind has. */
const fitting = (callout: Callout, { callouts = {} }: SharedChange): object =>
  Object.fromEntries(
    Object.entries(callouts).filter(
      ([name]) =>
        !['id', 'kind', 'start', 'end'].includes(name) &&
        Object.hasOwn(kindOf(callout).schema.properties, name),
    ),
  );
