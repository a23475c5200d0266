import { copyClips, copyRange, type PasteMode, type Snippet } from '@/core/edit/clipboard';
import { copySpan, type CopiedSpan } from '@/core/edit/span-copy';
import { frontmost, sceneAt } from '@/core/scene/scene';
import { EditError } from '@/core/edit/error';
import { clipEnd } from '@/core/project/clip-time';
import { findClip, projectDuration, stepAt, stepRange } from '@/core/project/query';
import { readClipboard, writeClipboard } from '../clipboard';
import { tell, tellFault } from '../../shell/notices-store';
import { rangeOf, selectedClips } from '../store';
import type { Command, CommandContext } from './context';

const laneIds = (chosen: readonly string[] | null) => chosen && [...chosen];

/** In and out points, and copying. */
export function rangeCommands(c: CommandContext): Command[] {
  const point = (which: 'in' | 'out') => () => {
    const { range } = c.state;
    const other = which === 'in' ? range.out : range.in;
    const wrong = other !== null && (which === 'in' ? c.here >= other : c.here <= other);
    c.store.setState({
      range: { in: null, out: null, ...(wrong ? {} : range), [which]: c.here },
      selection: null,
      also: [],
    });
  };
  const clear = () => c.store.setState({ range: { in: null, out: null }, rangeLanes: null });
  const around = () => {
    const { playhead } = c;
    const { project } = c.state;
    const clips = selectedClips(c.state).flatMap((id) => findClip(project, id)?.clip ?? []);
    const step = stepAt(project, playhead);
    const range = clips.length
      ? {
          start: Math.min(...clips.map((clip) => clip.start)),
          end: Math.max(...clips.map(clipEnd)),
        }
      : step && stepRange(project, step.id);
    if (!range) return tellFault('Select clips first, or put the playhead into a step.');
    c.store.setState({ range: { in: range.start, out: range.end }, selection: null, also: [] });
  };
  const toRange = (run: (range: { start: number; end: number }) => void) => () => {
    const range = rangeOf(c.state);
    if (range) run(range);
    else tellFault('Set a range first: I at its start, O at its end.');
  };
  const copied = (): Snippet | null => {
    const { project, rangeLanes, selection } = c.state;
    const range = rangeOf(c.state);
    try {
      return range && !selection
        ? copyRange(project, range, rangeLanes)
        : copyClips(project, selectedClips(c.state));
    } catch (error) {
      if (!(error instanceof EditError)) throw error;
      tellFault(error);
      return null;
    }
  };
  const copy = () => {
    const { selection, project, sources } = c.state;
    const span =
      selection && 'id' in selection && !selectedClips(c.state).length
        ? copySpan(project, sources, selection.id)
        : null;
    const snippet = span ? null : copied();
    if (span) writeClipboard({ span });
    else if (snippet) writeClipboard({ snippet });
    else return;
    tell('Copied. Paste puts it at the playhead, here or in another project.');
  };
  const cut = () => {
    const { rangeLanes, selection } = c.state;
    const range = rangeOf(c.state);
    const snippet = copied();
    if (!snippet) return;
    const ids = selectedClips(c.state);
    const done =
      range && !selection
        ? c.state.apply('lift-range', { ...range, laneIds: laneIds(rangeLanes) })
        : c.state.apply('lift-clips', { clipIds: ids });
    if (done) writeClipboard({ snippet });
  };
  const pasteSpanHere = (copied: CopiedSpan) => {
    const { project, sources } = c.state;
    const scene = sceneAt(project, sources, c.here);
    const footageId = frontmost(scene, 'screen')?.footage.id ?? null;
    const done = c.state.apply('paste-span', { copied, time: c.here, footageId });
    if (done) c.state.select({ kind: done.result.list, id: done.result.id });
  };
  const paste = (mode: PasteMode, front: boolean) => async () => {
    const copied = await readClipboard(c.store);
    if (!copied) return;
    if ('span' in copied) return pasteSpanHere(copied.span);
    const { snippet } = copied;
    const { selection } = c.state;
    const laneId = front ? 'front' : selection?.kind === 'lane' ? selection.id : null;
    const at = c.here;
    const done = c.state.apply('paste', { snippet, at, mode, laneId });
    if (done) {
      const ids = done.result;
      c.state.select({ kind: 'clip', id: ids[0]! }, ids.slice(1));
      c.store.setState({ range: { in: null, out: null } });
      c.seek(at + snippet.length);
    }
  };
  return [
    { id: 'in', label: 'In point here', keys: ['I'], run: point('in') },
    { id: 'out', label: 'Out point here', keys: ['O'], run: point('out') },
    { id: 'range-around', label: 'In and out around the selection or step', keys: [], run: around },
    { id: 'range-clear', label: 'Clear in and out', keys: [], run: clear },
    {
      id: 'range-all',
      label: 'In and out around everything',
      keys: [],
      run: () =>
        c.store.setState({
          range: { in: 0, out: projectDuration(c.state.project) },
          selection: null,
          also: [],
        }),
    },
    { id: 'copy', label: 'Copy', keys: ['Mod+C'], run: copy },
    { id: 'cut', label: 'Cut', keys: ['Mod+X'], run: cut },
    {
      id: 'paste',
      label: 'Paste at the playhead',
      keys: ['Mod+V'],
      run: () => void paste('overwrite', false)(),
    },
    {
      id: 'paste-insert',
      label: 'Paste and make room',
      keys: [],
      run: () => void paste('insert', false)(),
    },
    {
      id: 'paste-front',
      label: 'Paste on a new lane in front',
      keys: [],
      run: () => void paste('overwrite', true)(),
    },
    {
      id: 'silence',
      label: 'Silence the range',
      keys: [],
      run: toRange(
        (range) =>
          void c.state.apply('silence-range', { ...range, laneIds: laneIds(c.state.rangeLanes) }),
      ),
    },
    {
      id: 'retake',
      label: 'Retake the range (record the words again)',
      keys: [],
      run: toRange(() => c.open('retake')()),
    },
  ];
}
