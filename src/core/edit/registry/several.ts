import { changeSeveral, SharedChange } from '../several';
import { args, defineEdit, Ids } from './kind';

/** What is done to several things of several kinds at once. */
export const SEVERAL_EDITS = {
  'change-several': defineEdit({
    label: ({ ids }) => (ids.length === 1 ? 'Change' : `Change ${ids.length} things`),
    args: args({ ids: Ids, change: SharedChange }),
    run: (p, { ids, change }, context) => changeSeveral(p, ids, change, context),
  }),
} as const;
