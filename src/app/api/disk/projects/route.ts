import { diskUsage } from '@/contract/disk';
import { serve } from '@/server/http/serve';
import { diskUsage as usage } from '@/server/purge/usage';

export const dynamic = 'force-dynamic';

export const GET = serve(diskUsage, ({ context }) => usage(context));
