import { changeFootage } from '@/contract/footage';
import { changeFootage as change, setFootageDeleted } from '@/server/footage/change';
import { ChangeFootageBody } from '@/server/http/bodies';
import { serve } from '@/server/http/serve';

export const PATCH = serve(
  changeFootage,
  ChangeFootageBody,
  async ({ context, params: { id }, body }) => {
    const { deleted, ...rest } = body;
    if (deleted !== undefined) await setFootageDeleted(context, id, deleted);
    const given = Object.fromEntries(
      Object.entries(rest).filter(([, value]) => value !== undefined),
    );
    return Object.keys(given).length ? change(context, id, given) : null;
  },
);
