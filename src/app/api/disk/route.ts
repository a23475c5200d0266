import { handle } from '@/server/http/handle';
import { freeDisk } from '@/server/takes/takes';

export const dynamic = 'force-dynamic';

export const GET = handle(async () => ({ free: await freeDisk() }));
