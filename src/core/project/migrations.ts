import { newTheme } from '../callout/theme';
import { createClip, DEFAULT_MARKER_COLOR, DEFAULT_WORDS_PER_MINUTE } from './create';
import { PROJECT_FORMAT, PROJECT_VERSION, type Clip } from './model';
import { targetOf } from './targets';
import type { Fault } from '../schema/check';

type Document = Record<string, unknown>;

/** `MIGRATIONS[n]` turns version n into version n + 1. */
const MIGRATIONS: Record<number, (document: Document) => Document> = {
  /** Target, script, markers and looks came; steps have notes and may be planned only. */
  1: ({ steps, ...rest }) => {
    const { id, loudness, captions } = targetOf('web');
    return {
      ...rest,
      version: 2,
      target: { id, loudness, captions },
      script: { wordsPerMinute: DEFAULT_WORDS_PER_MINUTE },
      steps: Array.isArray(steps) ? steps.map((step: object) => ({ notes: '', ...step })) : steps,
      markers: [],
      looks: [],
    };
  },
  /**
   * Speed, fades, envelopes, transitions and groups came to clips; solo and height to lanes;
   * colours to markers.
   */
  2: ({ lanes, markers, presenter, looks, ...rest }) => ({
    ...rest,
    version: 3,
    lanes: eachOf(lanes, (lane) => ({
      solo: false,
      height: 1,
      ...lane,
      clips: eachOf(lane.clips, (clip) => createClip(clip as unknown as Clip)),
    })),
    markers: eachOf(markers, (marker) => ({ ...marker, color: DEFAULT_MARKER_COLOR })),
    groups: [],
    presenter,
    looks: eachOf(looks, (look) => ({ ...look, fit: 'fit', bars: 'plain' })),
  }),
  /**
   * Keys got an edge, a garbage rectangle and the wall's light; looks opacity, blend and tilt;
   * covers other ways; halos a dimmed surrounding.
   */
  3: ({ keys, looks, pointer, callouts, presenter, ...rest }) => ({
    ...rest,
    version: 4,
    keys: eachOf(keys, (key) => ({ ...key, choke: 0, feather: 0, garbage: null, wall: null })),
    looks: eachOf(looks, (look) => ({ ...look, opacity: 1, blend: 'normal', tilt: 0 })),
    pointer: eachOf(pointer, (span) => ({ ...span, dim: null })),
    callouts: eachOf(callouts, (callout) =>
      callout.kind === 'cover' ? { ...callout, way: 'blur', color: '#1e2a32' } : callout,
    ),
    presenter: typeof presenter === 'object' ? { ...presenter, feather: 0 } : presenter,
  }),
  /**
   * Layouts are data instead of one of four words; callouts say what they stand on, and each shape
   * is a kind of its own; the looks of the pointer are a list.
   */
  4: ({ layouts, callouts, pointer, ...rest }) => ({
    ...rest,
    version: 5,
    layouts: eachOf(layouts, ({ kind, ...span }) => ({ ...span, layout: layoutOfVersion4(kind) })),
    callouts: eachOf(callouts, calloutOfVersion4),
    pointer: eachOf(pointer, ({ halo, dim, ...span }) => ({
      ...span,
      looks: [...(dim === null ? [] : [lookOfVersion4('dim', dim)]), lookOfVersion4('halo', halo)],
    })),
  }),
  /**
   * Framings may slowly go on while they rest; spans of pointer looks fade, and the looks say
   * whether they grow with the view, as they did. What is mended of pointer tracks has a list.
   */
  5: ({ framings, pointer, ...rest }) => ({
    ...rest,
    version: 6,
    corrections: [],
    framings: eachOf(framings, (framing) => ({ ...framing, endRect: null })),
    pointer: eachOf(pointer, (span) => ({
      ...{ ...span, fadeIn: 0, fadeOut: 0 },
      looks: eachOf(span.looks, (look) => ({
        ...look,
        ...(look.kind === 'dim' ? { blur: 0, shape: 'disc' } : {}),
        grows: true,
      })),
    })),
  }),
  /** Text is rebuilt where it is magnified, unless the project or the recording says otherwise. */
  6: ({ canvas, looks, ...rest }) => ({
    ...rest,
    version: 7,
    canvas: typeof canvas === 'object' && canvas ? { ...canvas, crisp: true } : canvas,
    looks: eachOf(looks, (look) => ({ ...look, crisp: true })),
  }),
  /** Callouts say how they come and go, as they did; arrows can bend and have two heads. */
  7: ({ callouts, ...rest }) => ({
    ...rest,
    version: 8,
    callouts: eachOf(callouts, (callout) =>
      callout.kind === 'cover' ? callout : { ...callout, ...motionOfVersion7(callout.kind) },
    ),
  }),
  /**
   * Callouts have poses, and say on which course they come and go; words have letters of several
   * weights, an outline, a ground of its own; a marker pen can mark lines of text. What callouts
   * have in common is the project's theme.
   */
  8: ({ callouts, canvas, ...rest }) => ({
    ...rest,
    canvas,
    version: 9,
    theme: newTheme(heightOf(canvas)),
    callouts: eachOf(callouts, (callout) => ({
      ...callout,
      pose: { dx: 0, dy: 0, size: 1, turn: 0, opacity: 1 },
      keyframes: [],
      ...(callout.kind === 'cover'
        ? {}
        : { ease: callout.entrance === 'draw' || callout.exit === 'draw' ? 'even' : 'soft' }),
      ...looksOfVersion8(callout.kind),
    })),
  }),
  /**
   * Keys say what tells the presenter, have further samples, light and steadiness; presenters a
   * shadow and a gap before their ring; looks exposure, saturation and temperature.
   */
  9: ({ keys, presenter, looks, ...rest }) => ({
    ...rest,
    version: 10,
    keys: eachOf(keys, (key) => ({
      ...key,
      ...{ method: 'wall', shot: null, samples: [], spill: null, wrap: 0, steady: 0 },
    })),
    presenter: presenterOfVersion9(presenter),
    looks: eachOf(looks, (look) => ({ ...look, exposure: 0, saturation: 1, temperature: 0 })),
  }),
};

/** How a presenter of version 9 was placed; what is no placement is left to be refused. */
function presenterOfVersion9(presenter: unknown): unknown {
  if (typeof presenter !== 'object' || !presenter) return presenter;
  const { ring, ...placed } = presenter as Document;
  const plain = { second: null, gap: 0 };
  return { ...placed, ring: typeof ring === 'object' ? { ...ring, ...plain } : ring, shadow: 0 };
}

/** How high the frame is; what is none is left to be refused. */
const heightOf = (canvas: unknown): number =>
  typeof canvas === 'object' && canvas && 'height' in canvas ? Number(canvas.height) || 0 : 0;

/** How words and lines of version 8 looked, and what a marker pen marked. */
function looksOfVersion8(kind: unknown): Document {
  const letters = {
    ...{ weight: 'medium', align: 'start', outline: 0, edge: '#1e2a32', shadow: false },
  };
  switch (kind) {
    case 'text':
      return { ...letters, corner: 0, ground: true };
    case 'note':
      return { ...letters, corner: 0.5 };
    case 'highlight':
      return { lines: [] };
    case 'arrow':
    case 'line':
    case 'box':
    case 'ellipse':
      return { outline: 0, edge: '#ffffff' };
    default:
      return {};
  }
}

/** How a kind of callout of version 7 came and went, and what an arrow was. */
function motionOfVersion7(kind: unknown): Document {
  const faded = { entrance: 'fade', exit: 'fade', pace: 0.2 };
  switch (kind) {
    case 'arrow':
      return {
        ...{ ...faded, entrance: 'draw', pace: 0.25 },
        ...{ course: 'straight', bend: 0.2, heads: 'end' },
      };
    case 'highlight':
      return { ...faded, entrance: 'draw', pace: 0.4 };
    default:
      return faded;
  }
}

/** A callout of version 4 with what it stands on as data, and its shape as its kind. */
function calloutOfVersion4({ footageId, anchor, shape, ...callout }: Document): Document {
  return {
    ...callout,
    ...(anchor === undefined ? {} : { tip: anchor }),
    ...(callout.kind === 'shape' ? { kind: shape } : shape === undefined ? {} : { shape }),
    anchor: { to: 'footage', footageId },
  };
}

/** The settings of a look with its name; what is none is left to be refused. */
const lookOfVersion4 = (kind: string, settings: unknown): unknown =>
  typeof settings === 'object' && settings ? { kind, ...settings } : settings;

/** What the four layouts of version 4 are as data; a word that was none is left to be refused. */
function layoutOfVersion4(kind: unknown): unknown {
  const whole = { x: 0, y: 0, width: 1, height: 1 };
  const screen = { box: whole };
  const plain = { shape: 'rectangle', feather: 0, ring: null };
  const stay = { background: null, alone: 'stay' };
  switch (kind) {
    case 'corner':
      return { name: 'Presenter in a corner', ...stay, screen, presenter: 'placed' };
    case 'side':
      return {
        name: 'Side by side',
        background: null,
        screen: { box: { x: 0.02, y: 0.165, width: 0.67, height: 0.67 } },
        presenter: {
          ...plain,
          box: { x: 0.71, y: 0.165, width: 0.27, height: 0.67 },
          center: null,
        },
        alone: 'whole',
      };
    case 'presenter':
      return {
        name: 'Presenter only',
        ...stay,
        screen: null,
        presenter: { ...plain, box: whole, center: { x: 0.5, y: 0.5 } },
      };
    case 'screen':
      return { name: 'Screen only', ...stay, screen, presenter: null };
    default:
      return kind;
  }
}

/** Changes the members of a list; what is no list is left for the check to refuse. */
const eachOf = (list: unknown, change: (member: Document) => unknown): unknown =>
  Array.isArray(list)
    ? list.map((member: unknown) =>
        typeof member === 'object' && member ? change(member as Document) : member,
      )
    : list;

/**
 * Brings a document of any known version to the present one; says so when it is none or too new.
 */
export function migrate(value: unknown): { value: unknown } | { fault: Fault } {
  if (typeof value !== 'object' || value === null || Array.isArray(value))
    return { fault: { path: '/', message: 'is not a JSON object' } };
  let document = value as Document;
  if (document.format !== PROJECT_FORMAT)
    return { fault: { path: '/format', message: `is not "${PROJECT_FORMAT}"` } };
  let version = Number(document.version);
  if (!Number.isInteger(version) || version < 1 || version > PROJECT_VERSION)
    return {
      fault: {
        path: '/version',
        message: `is not one that this Vistum reads (1 to ${PROJECT_VERSION})`,
      },
    };
  for (; version < PROJECT_VERSION; version++) document = MIGRATIONS[version]!(document);
  return { value: document };
}
