import { freeDisk } from '@/contract/disk';
import { serve } from '@/server/http/serve';
import { freeDisk as free } from '@/server/takes/takes';

export const dynamic = 'force-dynamic';

export const GET = serve(freeDisk, async () => ({ free: await free() }));
