import type { Work } from '../jobs/work';

/** What it changes when a recording can't be looked at or prepared: the sentence stands with it. */
export const failIngest: Required<Work>['failed'] =
  (context, footageId, sentence) => async (transaction) => {
    await context.db.footage.update(
      { status: 'failed', error: sentence },
      { where: { id: footageId }, transaction },
    );
  };
