import { localContext } from '@/server/context';
import { handle } from '@/server/http/handle';
import { uploads } from '@/server/http/uploads';

export const dynamic = 'force-dynamic';

const answer = handle(async (request) => uploads(await localContext()).handleWeb(request));

export {
  answer as DELETE,
  answer as GET,
  answer as HEAD,
  answer as OPTIONS,
  answer as PATCH,
  answer as POST,
};
