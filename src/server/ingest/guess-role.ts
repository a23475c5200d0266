import type { MediaFacts } from '@/contract/footage';
import type { Role } from '@/core/project/sources';
import { ticksToSeconds } from '@/core/time/ticks';

const NAMED: readonly (readonly [RegExp, Role])[] = [
  [/camera|webcam|presenter|face|selfie|cam\b/i, 'presenter'],
  [/screen|desktop|capture|display|slides?/i, 'screen'],
  [/music|bed|theme|jingle|song/i, 'music'],
  [/voice|narration|mic|speech|vo\b/i, 'voice'],
];

const CAMERA_SIZES = new Set(['640x480', '1280x720']);

/**
 * What a file most likely is for: by its name first, then by what it holds. A person can change it.
 */
export function guessRole(name: string, facts: MediaFacts): Role {
  if (facts.kind === 'image') return 'still';
  const named = NAMED.find(([pattern]) => pattern.test(name))?.[1];
  if (facts.kind === 'audio')
    return named === 'music' || named === 'voice'
      ? named
      : facts.channels > 1 && ticksToSeconds(facts.duration) > 60
        ? 'music'
        : 'voice';
  if (named === 'presenter' || named === 'screen') return named;
  return CAMERA_SIZES.has(`${facts.width}x${facts.height}`) && facts.hasAudio
    ? 'presenter'
    : 'screen';
}

/** A role that the file can play; a sound can't be a screen. */
export function fitRole(wanted: Role, facts: MediaFacts): { role: Role; note: string | null } {
  if (facts.kind === 'audio' && wanted !== 'voice' && wanted !== 'music')
    return {
      role: 'voice',
      note: `It holds sound only, so it can’t be the ${wanted}; it was added as voice.`,
    };
  if (facts.kind === 'image' && wanted !== 'still')
    return { role: 'still', note: 'It is a picture that does not move; it was added as a still.' };
  if (facts.kind === 'video' && wanted === 'still')
    return { role: 'screen', note: 'It moves, so it was added as a screen recording.' };
  return { role: wanted, note: null };
}
