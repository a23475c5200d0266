import { keepTake } from '@/contract/takes';
import { serve } from '@/server/http/serve';
import { keepTake as keep } from '@/server/takes/keep';

export const POST = serve(keepTake, ({ context, params }) => keep(context, params.id));
