import { handle } from '@/server/http/handle';
import { diskUsage } from '@/server/purge/usage';

export const dynamic = 'force-dynamic';

/** The disk that each project takes. */
export const GET = handle(async () => diskUsage());
