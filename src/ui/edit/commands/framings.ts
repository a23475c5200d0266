import { framingBefore, viewInOther } from '@/core/framing/by-hand';
import { pageAt } from '@/core/framing/cuts';
import { canPlan } from '@/core/framing/doings';
import { viewsOnPage } from '@/core/framing/page-edges';
import { keepInside } from '@/core/framing/path';
import { sourceMs } from '@/core/project/clip-time';
import type { Framing } from '@/core/project/model';
import { areaOf } from '@/core/project/query';
import { trackOf } from '@/core/project/track-of';
import type { InFootage } from '@/core/scale/rect';
import { wholeView } from '@/core/scale/sharpness';
import type { ScreenView } from '@/core/scene/scene';
import { pointerAt } from '@/core/telemetry/sample';
import { type Ticks } from '@/core/time/ticks';
import { tell, tellFault } from '../../shell/notices-store';
import { addFraming, newFraming } from '../new-framing';
import type { Command, CommandContext } from './context';

/** A view that is hardly closer than the whole is none of its own. */
const CLOSER = 1.05;
const USUAL = 1.2;

/** The spot of a recording that is to be looked at: its pointer, or the middle of what is seen. */
export function spotHere(c: CommandContext, { clip, footage, view }: ScreenView) {
  const track = trackOf(c.state.project, c.state.sources, footage.id);
  if (track) return pointerAt(track, sourceMs(clip, c.playhead));
  return { x: view.x + view.width / 2, y: view.y + view.height / 2 };
}

/** Framings by plan and by hand. */
export function framingCommands(c: CommandContext): Command[] {
  const get = () => c.state;
  const selected = (): Framing | null => {
    const { selection, project } = get();
    return selection?.kind === 'framings'
      ? (project.framings.find((f) => f.id === selection.id) ?? null)
      : null;
  };
  const wholeOf = (footageId: string): InFootage | null => {
    const { project, sources } = get();
    const footage = sources.footage[footageId];
    return footage ? wholeView(areaOf(project, footage), project.canvas) : null;
  };
  const add = (footageId: string, view: InFootage, turn = 0, length?: Ticks) => {
    const framing = newFraming(get(), footageId, view, turn, length);
    if (!framing) return tellFault('There is no screen recording under the playhead.');
    addFraming(c.store, framing);
  };
  const setView = (id: string, rect: InFootage, more: Pick<Framing, 'turn'> = {}) =>
    get().apply('change-framing', { id, change: { rect: { ...rect }, ...more, pinned: true } });

  const plan = async () => {
    const { sources, planFramings } = get();
    if (!canPlan(sources))
      return tellFault(
        'Nothing is known yet of what is done on the screen. Press “Find the pointer” in the details of a screen recording in Footage, attach a pointer track there, or set framings by hand with F.',
      );
    get().endGesture();
    get().select({ kind: 'plan' });
    const found = await planFramings();
    if (!found) return;
    const { framings } = found;
    const pinned = framings.filter((f) => f.pinned).length;
    tell(
      `${framings.length} framing${framings.length === 1 ? '' : 's'}${pinned ? `, ${pinned} of them pinned and left alone` : ''}. Select one in the Framing lane to change it.`,
      { label: 'Undo', run: () => get().undo() },
    );
  };
  /** What is in view stays so; from the whole, the surroundings of the pointer are framed. */
  const here = () => {
    const screen = c.screenHere();
    if (!screen) return;
    const { footage, view, turn, limit } = screen;
    const whole = wholeOf(footage.id)!;
    if (whole.width / view.width > CLOSER) return add(footage.id, view, turn);
    const spot = spotHere(c, screen);
    const zoom = Math.max(USUAL, limit);
    const [width, height] = [whole.width / zoom, whole.height / zoom];
    const around = { x: spot.x - width / 2, y: spot.y - height / 2, width, height };
    add(footage.id, keepInside(around, whole));
  };
  const asBefore = () => {
    const chosen = selected();
    const before = framingBefore(get().project, chosen?.start ?? c.here);
    if (!before) return tellFault('No framing stands before this one.');
    const footageId = chosen?.footageId ?? c.screenHere()?.footage.id;
    if (!footageId) return;
    const [from, to] = [wholeOf(before.footageId), wholeOf(footageId)];
    if (!from || !to) return tellFault('The recording of the framing before is not there.');
    const view = viewInOther(before.endRect ?? before.rect, from, to);
    const turn = before.turn ?? 0;
    if (chosen) setView(chosen.id, view, { turn });
    else add(footageId, view, turn, before.end - before.start);
  };
  /**
   * The panel or block of text at the view's middle or the pointer; pressed again, the next larger.
   */
  const align = () => {
    const { project, sources } = get();
    const screen = c.screenHere();
    if (!screen) return;
    const chosen = selected();
    const { footage } = screen;
    const page = pageAt(project, sources, footage.id, c.playhead);
    if (!page)
      return tellFault(
        'It is not known yet where text and panels are. Press “Find the pointer” in the details of this recording in Footage.',
      );
    const whole = wholeOf(footage.id)!;
    const now = chosen?.rect;
    const spot = now
      ? { x: now.x + now.width / 2, y: now.y + now.height / 2 }
      : spotHere(c, screen);
    const views = viewsOnPage(page, spot, whole, project.canvas, Math.max(USUAL, screen.limit));
    if (!views.length)
      return tellFault('No panel or block of text lies here that is smaller than the screen.');
    const at = now ? views.findIndex((v) => Math.abs(v.width - now.width) < 1) : -1;
    const view = views[(at + 1) % views.length]!;
    if (chosen) setView(chosen.id, view);
    else add(footage.id, view);
  };
  const draw = () => {
    if (selected() || c.screenHere()) get().set({ drawing: get().drawing ? null : 'framing' });
  };

  return [
    { id: 'plan', label: 'Plan framings', keys: [], run: () => void plan() },
    { id: 'framing', label: 'Framing here', keys: ['F'], run: here },
    { id: 'framing-draw', label: 'Draw a framing on the Picture', keys: ['Shift+F'], run: draw },
    { id: 'framing-before', label: 'Framing as the one before', keys: [], run: asBefore },
    {
      id: 'framing-align',
      label: 'Framing of the panel or text here',
      keys: ['Alt+F'],
      run: align,
    },
    {
      id: 'framing-whole',
      label: 'Whole screen here',
      keys: [],
      run: () => get().apply('show-whole', { time: c.here }),
    },
  ];
}
