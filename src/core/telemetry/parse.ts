import Papa from 'papaparse';
import { checkOf } from '../schema/check';
import {
  POINTER_EVENT_TYPES,
  PointerTrack,
  type PointerEvent,
  type PointerEventType,
  type PointerSample,
} from './pointer-track';

export interface ParsedTrack {
  readonly track: PointerTrack;
  /** Sentences on what was mended, for the person who brought the file. */
  readonly notes: readonly string[];
}

/** Says why a pointer track can't be read. */
export class PointerTrackError extends Error {}

// Tracks have hundreds of thousands of samples: one fault is enough.
const checkTrack = checkOf(PointerTrack, { all: false });

/**
 * Reads a pointer track, JSON or CSV (`ms,x,y,event`), and mends what can be:
 * times that run backwards are sorted, positions outside are brought to the edge.
 *
 * @param size of the recording in pixels, for a CSV, which does not say it.
 * @throws PointerTrackError with a sentence when it is neither, or holds no positions.
 */
export function parsePointerTrack(
  text: string,
  size: { width: number; height: number },
): ParsedTrack {
  const trimmed = text.replace(/^\uFEFF/, '').trimStart();
  return tidy(trimmed.startsWith('{') ? parseJson(trimmed) : parseCsv(trimmed, size));
}

function parseJson(text: string): PointerTrack {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new PointerTrackError(
      'The pointer track is not valid JSON. Export it again, or bring it as CSV (ms,x,y,event).',
    );
  }
  const checked = checkTrack(value);
  if ('value' in checked) return checked.value;
  const [fault] = checked.faults;
  throw new PointerTrackError(
    `The pointer track is not in the expected form: ${fault?.path ?? '/'} ${fault?.message ?? 'is wrong'}.`,
  );
}

function parseCsv(text: string, size: { width: number; height: number }): PointerTrack {
  const { data } = Papa.parse<string[]>(text, { skipEmptyLines: true });
  const rows = data[0] && Number.isNaN(Number(data[0][0])) ? data.slice(1) : data;
  const samples: PointerSample[] = [];
  const events: PointerEvent[] = [];
  for (const [index, row] of rows.entries()) {
    const [ms, x, y] = row.slice(0, 3).map((cell) => (cell.trim() === '' ? NaN : Number(cell)));
    if (![ms, x, y].every(Number.isFinite))
      throw new PointerTrackError(
        `Row ${index + 1} of the pointer track does not begin with three numbers (ms,x,y).`,
      );
    samples.push([ms!, x!, y!]);
    const [type, detail] = (row[3] ?? '').trim().split(' ', 2);
    if (!type) continue;
    if (!(POINTER_EVENT_TYPES as readonly string[]).includes(type))
      throw new PointerTrackError(
        `Row ${index + 1} of the pointer track names an unknown event "${type.slice(0, 40)}".`,
      );
    events.push({
      t: ms!,
      type: type as PointerEventType,
      ...(type === 'key' && detail ? { key: detail } : {}),
      ...(type === 'wheel' && detail ? { dy: Number(detail) || 0 } : {}),
      ...(type === 'shape' && detail ? { shape: detail } : {}),
    });
  }
  return { format: 'vistum-pointer', version: 1, ...size, samples, events };
}

function tidy(track: PointerTrack): ParsedTrack {
  if (!track.samples.length) throw new PointerTrackError('The pointer track holds no positions.');
  const notes: string[] = [];
  const count = (n: number, what: string) => `${n} ${what}${n === 1 ? '' : 's'}`;
  const backwards = (times: readonly number[]) =>
    times.filter((t, i) => i > 0 && t < times[i - 1]!).length;
  const late = backwards(track.samples.map((s) => s[0])) + backwards(track.events.map((e) => e.t));
  if (late) notes.push(`${count(late, 'time')} ran backwards; the track was sorted by time.`);
  let outside = 0;
  const samples = [...track.samples]
    .sort((a, b) => a[0] - b[0])
    .map(([ms, x, y, ...sure]): PointerSample => {
      const px = Math.min(Math.max(x, 0), track.width - 1);
      const py = Math.min(Math.max(y, 0), track.height - 1);
      if (px !== x || py !== y) outside++;
      return [ms, px, py, ...sure];
    });
  if (outside)
    notes.push(
      `${count(outside, 'position')} lay outside the picture and were brought to its edge.`,
    );
  return {
    track: { ...track, samples, events: [...track.events].sort((a, b) => a.t - b.t) },
    notes,
  };
}
