import { inStyle, styleOf, CalloutStyle } from '@/core/callout/style';
import { isOf } from '@/core/schema/check-plain';
import { tell, tellFault } from '../../shell/notices-store';
import { selectedSpans } from '../store';
import type { Command, CommandContext } from './context';

/** The style that was copied last is kept in the browser's storage, for other projects too. */
const KEY = 'vistum-style';

function copied(): CalloutStyle | null {
  try {
    const style: unknown = JSON.parse(localStorage.getItem(KEY) ?? 'null');
    return isOf(CalloutStyle, style) ? style : null;
  } catch {
    return null;
  }
}

/** What takes the style of one callout over to others. */
export function styleCommands(c: CommandContext): Command[] {
  const selected = () => {
    const ids = selectedSpans(c.state);
    return c.state.project.callouts.filter(({ id }) => ids.includes(id));
  };
  const copy = () => {
    const [first] = selected();
    if (!first) return tellFault('Select the callout whose style is to be copied.');
    try {
      localStorage.setItem(KEY, JSON.stringify(styleOf(first)));
      tell('The style was copied. Select other callouts and paste it.');
    } catch {
      tellFault('This browser keeps nothing for this page; the style can’t be copied.');
    }
  };
  const paste = () => {
    const style = copied();
    if (!style) return tellFault('No style was copied yet. Select a callout and copy its style.');
    const changes = selected().flatMap((callout) => {
      const change = inStyle(callout, style);
      return Object.keys(change).length ? [{ id: callout.id, change }] : [];
    });
    if (changes.length) c.state.apply('change-callouts', { changes });
    else tellFault('Select callouts that have something of the copied style.');
  };
  return [
    { id: 'style-copy', label: 'Copy style', keys: [], run: copy },
    { id: 'style-paste', label: 'Paste style', keys: [], run: paste },
  ];
}
